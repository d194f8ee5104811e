import { useState } from 'react'
import { faultWords } from '../../api/ask'
import type { BatchNow, BenchTest, FormulaDocument, History } from '../../api/client'
import { useKeys } from '../../lib/keys'
import { Keycap } from '../../ui/Button'
import { sayOf, writeIn } from '../log/queries'
import { TestSheet } from './TestSheet'

interface TestHereProps {
  formula: FormulaDocument
  component: string | null
  history: History
}

/** A test of what is on the Bench: with its first reading a batch of it is written in, which the reading is of. */
export function TestHere({ formula, component, history }: TestHereProps) {
  const [open, setOpen] = useState(false)
  const [batch, setBatch] = useState<BatchNow | null>(null)
  const [wrong, setWrong] = useState<string | null>(null)
  useKeys('Bench', [{ key: 'b', words: 'Test it', run: () => setOpen(true) }])
  const tested = async (test: BenchTest, c: number, history: History) => {
    setWrong(null)
    const said = { what: 'tested' as const, test, c, history }
    try {
      setBatch(
        batch
          ? await sayOf(batch.kept.id, said)
          : await writeIn({ formula, ...(component ? { component } : {}) }, null, [said]),
      )
    } catch (error) {
      setWrong(faultWords(error))
    }
  }
  return (
    <>
      <button
        type="button"
        className="inline-flex items-center gap-1 rounded-md px-1 font-[640] text-rim underline hover:bg-rim-tint pointer-coarse:min-h-11"
        onClick={() => setOpen(true)}
      >
        Test it <Keycap>B</Keycap>
      </button>
      {open && (
        <TestSheet
          formula={formula}
          c={null}
          history={history}
          done={batch?.view.tests ?? []}
          wrong={wrong}
          onTested={(test, c, history) => void tested(test, c, history)}
          onClose={() => {
            setOpen(false)
            setBatch(null)
            setWrong(null)
          }}
        />
      )}
    </>
  )
}
