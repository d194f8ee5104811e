import { useState } from 'react'
import { Link } from 'react-router'
import type { LearnedOffset } from '../../api/client'
import { dayOf, twoDigits } from '../../lib/format'
import { Button } from '../../ui/Button'
import { TextField } from '../../ui/TextField'
import { decide, useOffsetHistory } from './queries'
import { TimesBar } from './TimesBar'

interface OffsetRowProps {
  offset: LearnedOffset
  onRun: (what: () => Promise<unknown>) => void
}

/** One offset: how far off, from how many tests, how it came to be; and that it begins anew. */
export function OffsetRow({ offset, onRun }: OffsetRowProps) {
  const [open, setOpen] = useState(false)
  const [asking, setAsking] = useState(false)
  const [why, setWhy] = useState('')
  const past = offset.of.of === 'past'
  const back = () => {
    setAsking(false)
    onRun(() =>
      decide({
        what: 'set_back',
        of: offset.of,
        quantity: offset.quantity,
        ...(why.trim() ? { why: why.trim() } : {}),
      }),
    )
  }
  return (
    <li className="border-b border-line py-1.5">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className={`min-w-56 flex-1 ${past ? 'text-ink2' : ''}`}>
          <b className="font-[640]">{offset.sentence}</b>
          <span className="block text-note text-ink2">
            {twoDigits(offset.times.low)} to {twoDigits(offset.times.high)} times,{' '}
            {offset.quantity === 'viscosity' ? 'flow' : 'stiffness'}
          </span>
        </span>
        <TimesBar times={offset.times} />
        <span className="no-print flex gap-1">
          <Button
            look="quiet"
            className="px-2"
            aria-expanded={open}
            aria-label={`How it came: ${offset.name}`}
            onClick={() => setOpen(!open)}
          >
            How it came
          </Button>
          {!past && (
            <Button
              look="quiet"
              className="px-2"
              aria-label={`Begin anew: ${offset.name}`}
              onClick={() => setAsking(true)}
            >
              Begin anew
            </Button>
          )}
        </span>
      </div>
      {asking && (
        <div className="my-1 flex flex-wrap items-end gap-2 rounded-lg border-2 border-rim px-3 py-2">
          <p className="basis-full">
            From now on it is as the book has it, until a new test says otherwise. What was measured stays, as
            what it was until today.
          </p>
          <TextField
            label="Why (another maker, a new thermometer)"
            maxLength={400}
            className="min-w-56 flex-1"
            value={why}
            onChange={setWhy}
          />
          <Button look="primary" onClick={back}>
            Begin anew
          </Button>
          <Button look="quiet" onClick={() => setAsking(false)}>
            Leave it
          </Button>
        </div>
      )}
      {open && <History offset={offset} />}
    </li>
  )
}

/** What it was after each test that bears on it. */
function History({ offset }: { offset: LearnedOffset }) {
  const history = useOffsetHistory(offset)
  if (history.isError && !history.data) {
    return (
      <p role="alert" className="text-hot">
        {history.error?.message}
      </p>
    )
  }
  if (!history.data) return <div className="min-h-10" aria-busy="true" />
  return (
    <ol className="my-1 ml-4 border-l-2 border-line pl-3">
      {history.data.steps.map((own) => (
        <li key={own.test} className="flex flex-wrap items-center gap-x-4">
          <span className="min-w-56 flex-1 text-note">
            {dayOf(own.at)},{' '}
            <Link className="text-rim underline" to={`/log/${own.batch}`}>
              {own.name}
            </Link>
            : {own.words}
            {own.counts !== 'yes' && <span className="text-hot"> (counts for nothing)</span>}
          </span>
          <TimesBar times={own.times} />
          <span className="w-24 text-note text-ink2">{twoDigits(own.times.value)} times</span>
        </li>
      ))}
    </ol>
  )
}
