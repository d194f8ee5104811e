import { useState } from 'react'
import type { BatchEvent, BatchView, Came, OwnBowl, SpoonSign } from '../../api/client'
import { weighed } from '../../lib/format'
import { readNumber } from '../../lib/number'
import { Button } from '../../ui/Button'
import { Select } from '../../ui/Select'
import { TextField } from '../../ui/TextField'
import { CAME, SPOON } from './came'
import { BIG } from './looks'
import { Made } from './Made'
import type { Pour } from './usePour'
import type { Say } from './say'
import { SpoonLook } from './SpoonLook'
import { Bowls, useBowls } from './Bowls'

interface FinishProps {
  id: string
  view: BatchView
  pour: Pour
  onSay: Say
}

/** What is in a bowl that was weighed with it, g. */
function without(grams: number, bowl: OwnBowl | undefined): number {
  return bowl ? Math.round((grams - bowl.grams) * 100) / 100 : grams
}

/** Everything is in and done: what came out, and how. */
export function Finish({ id, view, pour, onSay }: FinishProps) {
  const [typed, setTyped] = useState('')
  const [words, setWords] = useState('')
  const [spoon, setSpoon] = useState<SpoonSign | null>(null)
  const [came, setCame] = useState<Came | null>(view.came ?? null)
  const [wrong, setWrong] = useState<string | null>(null)
  const bowls = useBowls()
  const [bowlName, setBowlName] = useState('')
  const [weighing, setWeighing] = useState(false)
  const bowl = bowls.data?.find((own) => own.name === bowlName)
  const close = () => {
    const read = readNumber(typed)
    if (read.kind === 'wrong' || (read.kind === 'number' && read.value < 0)) {
      setWrong('Write what came out in grams, or nothing.')
      return
    }
    const out = read.kind === 'number' ? without(read.value, bowl) : null
    if (out !== null && out < 0) {
      setWrong(`That is less than ${bowlName} weighs alone: weigh it again, or pick another bowl.`)
      return
    }
    const events: BatchEvent[] = []
    if (out !== null) events.push({ what: 'yielded', grams: out })
    if (came) events.push({ what: 'judged', came, words, ...(spoon ? { spoon } : {}) })
    else if (spoon || words.trim() !== '') {
      setWrong('Say how it came out, beside what was seen.')
      return
    }
    onSay(...events, { what: 'closed' })
  }
  const now = readNumber(typed)
  const net = now.kind === 'number' ? without(now.value, bowl) : null
  if (view.closed) return <Made id={id} view={view} onSay={onSay} />
  return (
    <section aria-label="The end" className="flex min-w-0 flex-col gap-4">
      <h1 className="text-[42px] leading-[1.05] max-phone:text-[34px]">Everything is in and done</h1>
      <p className="text-head">
        {weighed(view.in_g)} g went in. {view.sentence}
      </p>
      <div className="flex flex-wrap items-center gap-3 text-title">
        <label className="flex items-center gap-3">
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
        {pour.scale?.g != null && pour.scale.g > 0 && (
          <Button className={BIG} onClick={() => setTyped(String(pour.scale?.g ?? ''))}>
            {weighed(pour.scale.g)} g on the scale
          </Button>
        )}
        <Select
          inline
          label="Weighed in"
          className="min-h-12"
          value={bowl ? bowlName : ''}
          onChange={setBowlName}
          options={[
            ['', 'without a bowl'] as const,
            ...(bowls.data ?? []).map(
              (own) => [own.name, `in ${own.name}, ${weighed(own.grams)} g`] as const,
            ),
          ]}
        />
        <Button className="min-h-12" onClick={() => setWeighing(true)}>
          Bowls
        </Button>
        {bowl && net !== null && net >= 0 && <b>{weighed(net)} g came out</b>}
      </div>
      {weighing && <Bowls onScale={null} onSay={onSay} onClose={() => setWeighing(false)} />}
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
      <fieldset>
        <legend className="text-title">On the spoon</legend>
        <div className="flex flex-wrap items-center gap-2">
          {view.spoon && <SpoonLook look={view.spoon} />}
          <div className="flex min-w-[280px] flex-1 flex-wrap gap-2">
            {SPOON.map(([key, word]) => (
              <Button
                key={key}
                className="min-h-12"
                aria-pressed={spoon === key}
                look={spoon === key ? 'primary' : 'plain'}
                onClick={() => setSpoon(spoon === key ? null : key)}
              >
                {word}
              </Button>
            ))}
          </div>
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
