import { useEffect } from 'react'
import { useLocation, useNavigate } from 'react-router'
import type { FormulaDocument } from '../../api/client'
import { useCarried } from '../../desk/session'
import { fromWire } from './document'
import type { BenchDocument } from './document'

/** What was brought from elsewhere comes on top of what is in hand, as one step of undo: nothing is laid over it. */
export function useBrought(edit: (change: (document: BenchDocument) => BenchDocument) => void) {
  const { bring, session } = useCarried()
  const { pathname, search } = useLocation()
  const navigate = useNavigate()
  useEffect(() => {
    if (bring === undefined) return
    edit(() => fromWire(bring as FormulaDocument))
    // Once: loading the page again must not bring it again.
    void navigate(pathname + search, { replace: true, state: { session } })
  }, [bring, session, pathname, search, navigate, edit])
}
