import { useState } from 'react'
import { Link } from 'react-router'
import type { DayView, PlanDocument, Quicker, ViewStep } from '../../api/client'
import { MakeOf } from '../batch/MakeOf'
import { Button } from '../../ui/Button'
import { TextField } from '../../ui/TextField'
import { Tick } from '../../ui/Tick'
import { QuickerWays } from './Quicker'
import { span } from './time'
import type { Wall } from './time'

interface WhyProps {
  view: DayView
  wall: Wall
  step: ViewStep
  onSelect: (step: number) => void
  /** Puts it to another minute; none where it may not be. */
  onMove: ((to: number) => void) | null
  onPin: ((pinned: boolean) => void) | null
  /** The plan that is shown, whose numbers its waits have; none where what is shown is no whole plan. */
  plan: PlanDocument | null
  /** Shows the plan with a wait made shorter; none while another is shown. */
  onQuicker: ((quicker: Quicker) => void) | null
  asking: boolean
}

/** Why a step stands where it stands: what comes before, what comes after, and how much room there is. */
export function Why(props: WhyProps) {
  const { view, wall, step, onSelect, onMove, onPin, plan, onQuicker, asking } = props
  const [sooner, setSooner] = useState<number | null>(null)
  const waits = plan ? view.waits.filter((wait) => wait.to === step.step && wait.clocked) : []
  const begins = step.begins ?? 0
  const [from, to] = [step.anywhere?.[0] ?? begins, step.anywhere?.[1] ?? begins]
  const [at, setAt] = useState(wall.time(begins))
  const wanted = minuteOf(at, begins, wall)
  const first = step.not_earlier[0]
  const last = step.not_later[0]
  const anchor = step.not_later.at(-1)
  return (
    <section aria-label="Why it stands there" className="min-w-0">
      <h2 className="text-title">
        Why {lower(step.short)} at {wall.time(begins)}?
      </h2>
      <p className="text-note text-ink2">
        {step.letters} {step.of}, {span(step.lasts)}
        {step.cook != null && `, ${view.cooks[step.cook]?.name ?? ''}`}
      </p>
      <div className="mt-2 grid grid-cols-[minmax(0,1fr)_auto_minmax(0,1fr)] items-stretch gap-2 max-phone:grid-cols-1">
        <Cause title="Not earlier" words={first?.words} by={first?.by} onSelect={onSelect} />
        <div className="flex flex-col justify-center rounded-lg bg-rim px-3 py-2 text-rim-text">
          <b className="font-head text-lead whitespace-nowrap">
            {wall.time(begins)} to {wall.time(begins + step.lasts)}
          </b>
          <span className="text-note">
            {from === to ? 'no room either way' : `anywhere ${wall.time(from)} to ${wall.time(to)}`}
          </span>
          {step.no_time_to_lose && <b className="text-note">No time to lose</b>}
        </div>
        <Cause title="Not later" words={last?.words} by={last?.by} onSelect={onSelect} />
      </div>
      {anchor && step.not_later.length > 1 && (
        <details className="mt-2">
          <summary className="min-h-9 cursor-pointer py-1.5 font-[640] text-rim">
            In the end: {anchor.words}
          </summary>
          <ol className="text-note">
            {step.not_later.map((own, place) => (
              <li key={place} className="border-t border-line py-1">
                {own.words}
              </li>
            ))}
          </ol>
        </details>
      )}
      {waits.map((wait) => (
        <div key={wait.wait} className="mt-1">
          {sooner === wait.wait ? (
            <>
              <b className="block pt-1 text-note">
                What would make “{wait.of}, {wait.called}” shorter
              </b>
              {plan && <QuickerWays plan={plan} wait={wait.wait} onUse={onQuicker} />}
            </>
          ) : (
            <Button look="quiet" className="px-2" onClick={() => setSooner(wait.wait)}>
              What would make “{wait.of}, {wait.called}” shorter?
            </Button>
          )}
        </div>
      ))}
      {step.makes && (
        <p className="mt-1 flex flex-wrap items-center gap-3">
          <Link
            className="inline-flex min-h-9 items-center font-[640] text-rim underline pointer-coarse:min-h-11"
            to={`/bench/${step.makes.component.replace(/@.*/, '')}`}
          >
            {step.of} on the Bench
          </Link>
          <MakeOf
            component={step.makes.component}
            name={step.of}
            grams={step.makes.weighed_g}
            madeFor={step.makes.orders.flatMap((at) => {
              const own = view.orders[at]
              return own ? [{ name: own.name, ...(own.key ? { order: own.key } : {}) }] : []
            })}
          />
        </p>
      )}
      {step.batch && <p className="mt-2 text-note font-[640]">{step.batch}.</p>}
      <ul className="mt-2 text-note">
        {step.what.map((words, place) => (
          <li key={place}>{words}.</li>
        ))}
      </ul>
      {(onMove ?? onPin) && (
        <form
          className="mt-2 flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault()
            if (wanted !== null) onMove?.(wanted)
          }}
        >
          {onMove && (
            <>
              <TextField label="Begin at" value={at} onChange={setAt} className="w-24" inputMode="numeric" />
              <Button type="submit" disabled={wanted === null || wanted === begins || asking}>
                {asking ? 'Looking' : 'See what gives'}
              </Button>
            </>
          )}
          {onPin && (
            <Tick checked={step.pinned} onChange={onPin}>
              Stays there
            </Tick>
          )}
        </form>
      )}
    </section>
  )
}

/** A time as it is typed, on the day of a step. */
function minuteOf(text: string, near: number, wall: Wall): number | null {
  const match = /^(\d{1,2})[:.](\d{2})$/.exec(text.trim())
  if (!match) return null
  const [hour, minute] = [Number(match[1]), Number(match[2])]
  if (hour > 23 || minute > 59) return null
  const [own, past] = wall.time(near).split(':').map(Number)
  return near + (hour - (own ?? 0)) * 60 + (minute - (past ?? 0))
}

function lower(words: string): string {
  return words.charAt(0).toLowerCase() + words.slice(1)
}

interface CauseProps {
  title: string
  words: string | undefined
  by: number | null | undefined
  onSelect: (step: number) => void
}

function Cause({ title, words, by, onSelect }: CauseProps) {
  const text = words ?? 'nothing is in its way'
  return (
    <div className="rounded-lg border-2 border-rim px-3 py-2">
      <b className="block text-note text-ink2">{title}</b>
      {by == null ? (
        <span className="text-note">{text}</span>
      ) : (
        <button type="button" className="text-left text-note underline" onClick={() => onSelect(by)}>
          {text}
        </button>
      )}
    </div>
  )
}
