import { createContext, useContext, useEffect } from 'react'
import type { FormulaDocument } from '../../api/client'

/** A formula in work, and how to change it. */
export interface InWork {
  document: FormulaDocument
  /** Puts a mended formula in its place; one step of undo. */
  use: (document: FormulaDocument) => void
}

interface Desk {
  open: () => void
  /** Tells what is in work; nothing when the Bench is left. */
  tell: (work: InWork | null) => void
}

export const DeskContext = createContext<Desk>({ open: () => undefined, tell: () => undefined })

export function useDesk(): Desk {
  return useContext(DeskContext)
}

/** Tells the rescue desk what is on the Bench. */
export function useInWork(document: FormulaDocument, use: (document: FormulaDocument) => void) {
  const { tell } = useDesk()
  useEffect(() => tell({ document, use }), [tell, document, use])
  useEffect(() => () => tell(null), [tell])
}
