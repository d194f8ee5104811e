import { useState } from 'react'
import { useNavigate } from 'react-router'
import { faultWords } from '../../api/ask'
import type { FormulaDocument } from '../../api/client'
import { useKeys } from '../../lib/keys'
import { Button } from '../../ui/Button'
import { useOnTheBench } from '../bench/inHand'

interface MakeButtonProps {
  document: FormulaDocument
  /** What is weighed of it, g; none while that is not known. */
  grams: number | null
  /** Whether the answer belongs to what is on the Bench. */
  current: boolean
}

/** Begins a batch of what is on the Bench, as it is. */
export function MakeButton({ document, grams, current }: MakeButtonProps) {
  const navigate = useNavigate()
  const component = useOnTheBench()
  const [busy, setBusy] = useState(false)
  const [wrong, setWrong] = useState<string | null>(null)
  const possible = document.lines.length > 0 && current && grams !== null && !busy
  const begin = async () => {
    setBusy(true)
    setWrong(null)
    try {
      const { beginBatch } = await import('./queries')
      const begun = await beginBatch({ formula: document, ...(component ? { component } : {}) })
      void navigate(`/make/${begun.kept.id}`)
    } catch (error) {
      setWrong(faultWords(error))
      setBusy(false)
    }
  }
  useKeys('Bench', [{ key: 'k', words: 'Make it', when: () => possible, run: () => void begin() }])
  return (
    <>
      <Button className="w-full" hotkey="K" disabled={!possible} onClick={() => void begin()}>
        Make {grams === null ? 'it' : `${Math.round(grams)} g`}
      </Button>
      {wrong && (
        <p role="alert" className="text-hot">
          {wrong}
        </p>
      )}
    </>
  )
}
