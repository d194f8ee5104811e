import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { BatchEvent, BatchView, Came } from '../../api/client'
import { weighed } from '../../lib/format'
import { readNumber } from '../../lib/number'
import { Button } from '../../ui/Button'
import { TextField } from '../../ui/TextField'
import { BIG } from './looks'

const CAME: readonly (readonly [Came, string])[] = [
  ['good', 'As it should'],
  ['stiff', 'Too stiff'],
  ['loose', 'Too loose'],
  ['split', 'Split'],
  ['grainy', 'Grainy'],
  ['thrown', 'Thrown away'],
]

/** Everything is in and done: what came out, and how. */
export function Finish({ view, onSay }: { view: BatchView; onSay: (...events: BatchEvent[]) => void }) {
  const [typed, setTyped] = useState('')
  const [words, setWords] = useState('')
  const [came, setCame] = useState<Came | null>(view.came ?? null)
  const [wrong, setWrong] = useState<string | null>(null)
  const navigate = useNavigate()
  const close = () => {
    const read = readNumber(typed)
    if (read.kind === 'wrong' || (read.kind === 'number' && read.value < 0)) {
      setWrong('Write what came out in grams, or nothing.')
      return
    }
    const events: BatchEvent[] = []
    if (read.kind === 'number') events.push({ what: 'yielded', grams: read.value })
    if (came) events.push({ what: 'judged', came, words })
    onSay(...events, { what: 'closed' })
  }
  if (view.closed) {
    return (
      <section aria-label="Made" className="flex flex-col gap-4">
        <h1 className="text-[52px] leading-[1.05]">Made.</h1>
        <p className="text-head">
          {weighed(view.in_g)} g went in{view.yielded_g != null && `, ${weighed(view.yielded_g)} g came out`}.
        </p>
        <p>
          <Button className={BIG} look="primary" onClick={() => void navigate('/make')}>
            All batches
          </Button>
        </p>
      </section>
    )
  }
  return (
    <section aria-label="The end" className="flex min-w-0 flex-col gap-4">
      <h1 className="text-[52px] leading-[1.05] max-phone:text-[34px]">Everything is in and done</h1>
      <p className="text-head">
        {weighed(view.in_g)} g went in. {view.sentence}
      </p>
      <label className="flex flex-wrap items-center gap-3 text-title">
        What came out
        <input
          inputMode="decimal"
          autoComplete="off"
          className="h-[68px] w-40 rounded-xl border-2 border-line2 bg-enamel px-3 text-right text-display font-[720]"
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value)
            setWrong(null)
          }}
        />
        g
      </label>
      {wrong && (
        <p role="alert" className="text-title text-hot">
          {wrong}
        </p>
      )}
      <fieldset>
        <legend className="text-title">It came out</legend>
        <div className="mt-2 flex flex-wrap gap-2">
          {CAME.map(([key, word]) => (
            <Button
              key={key}
              className={BIG}
              aria-pressed={came === key}
              look={came === key ? 'primary' : 'plain'}
              onClick={() => setCame(key)}
            >
              {word}
            </Button>
          ))}
        </div>
      </fieldset>
      <TextField label="In your words" value={words} onChange={setWords} maxLength={400} />
      <p>
        <Button className={BIG} look="primary" onClick={close}>
          Close the batch
        </Button>
      </p>
    </section>
  )
}
