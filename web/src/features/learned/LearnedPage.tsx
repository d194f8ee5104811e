import { useState } from 'react'
import { Link } from 'react-router'
import { faultWords } from '../../api/ask'
import type { KitchenLearned, LearnedReading, SetBackNamed } from '../../api/client'
import { dayOf, twoDigits } from '../../lib/format'
import { useTitle } from '../../lib/hooks'
import { Button } from '../../ui/Button'
import { NotRead } from '../../ui/NotRead'
import { LogNav } from '../log/LogNav'
import { sayOf } from '../log/queries'
import { OffsetRow } from './OffsetRow'
import { decide, useLearned, useNextTests } from './queries'

/** So many readings stand there before somebody asks for all. */
const SHOWN = 12

/** What the kitchen's own tests taught: every offset with its tests, every reading, what to measure next. */
export function LearnedPage() {
  useTitle('What it learned, Log')
  const learned = useLearned()
  if (learned.isError && !learned.data) {
    return <NotRead title="What was learned cannot be read" error={learned.error} onAgain={learned.refetch} />
  }
  return (
    <div className="tray flex flex-1 flex-col gap-4 px-6 pt-3 pb-4 max-phone:px-4" aria-busy={!learned.data}>
      <LogNav />
      {learned.data && <Learned learned={learned.data} />}
    </div>
  )
}

function Learned({ learned }: { learned: KitchenLearned }) {
  const [wrong, setWrong] = useState<string | null>(null)
  const run = (what: () => Promise<unknown>) => {
    setWrong(null)
    what().catch((error: unknown) => setWrong(faultWords(error)))
  }
  const apart = learned.readings.filter((own) => own.counts === 'does_not_fit')
  return (
    <>
      <header className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <h1 className="mr-auto text-display leading-tight">{sentence(learned)}</h1>
        <Button className="no-print" onClick={() => window.print()}>
          Print
        </Button>
      </header>
      {wrong && (
        <p role="alert" className="text-hot">
          {wrong}
        </p>
      )}
      {learned.unread > 0 && (
        <p role="alert" className="text-lead text-hot">
          {learned.unread === 1 ? 'One tested batch' : `${learned.unread} tested batches`} cannot be read and{' '}
          {learned.unread === 1 ? 'teaches' : 'teach'} nothing: run bright-spoon verify.
        </p>
      )}
      {learned.undecided > 0 && (
        <p role="alert" className="text-lead text-hot">
          {learned.undecided === 1 ? 'One decision' : `${learned.undecided} decisions`} (what begins anew, or
          does not after all) cannot be read and {learned.undecided === 1 ? 'is' : 'are'} as if never made:
          look at what follows, and run bright-spoon verify.
        </p>
      )}
      {apart.length > 0 && (
        <section aria-label="Does not fit">
          <h2 className="text-title text-hot">
            {apart.length === 1 ? 'One reading does not fit' : `${apart.length} readings do not fit`}: measure
            again
          </h2>
          <p className="text-ink2">
            A reading this far from all others moves nothing. It counts once a second one agrees with it.
          </p>
          <Readings readings={apart} onRun={run} />
        </section>
      )}
      <Next />
      {learned.offsets.length > 0 && (
        <section aria-label="Offsets">
          <h2 className="text-title">How far off the book</h2>
          <p className="text-note text-ink2">
            The line is the book, the ends are half and twice of it, the bar is the 90 % band.
          </p>
          <ul className="border-t border-line">
            {learned.offsets.map((own) => (
              <OffsetRow key={JSON.stringify([own.quantity, own.of])} offset={own} onRun={run} />
            ))}
          </ul>
        </section>
      )}
      {learned.set_back.length > 0 && <SetBack all={learned.set_back} onRun={run} />}
      {learned.readings.length > 0 && (
        <section aria-label="Readings">
          <h2 className="text-title">Every reading</h2>
          <Readings readings={learned.readings} onRun={run} />
        </section>
      )}
    </>
  )
}

function sentence({ offsets, readings }: KitchenLearned): string {
  // What was set back speaks of what is over.
  const first = offsets.find((own) => own.of.of !== 'past')
  if (readings.length === 0) return 'Nothing was learned yet'
  return first ? first.sentence.replace(/\.$/, '') : 'No reading counts yet'
}

/** What would teach most. */
function Next() {
  const next = useNextTests()
  const all = next.data ?? []
  return (
    <section aria-label="What to measure next" aria-busy={!next.data && !next.isError}>
      <h2 className="text-title">What to measure next</h2>
      {next.isError && !next.data && (
        <p role="alert" className="text-hot">
          {next.error?.message}
        </p>
      )}
      {next.data && all.length === 0 && (
        <p className="text-lead">
          Nothing would narrow a band worth speaking of. Batches that are made of formulas of the library are
          looked at.
        </p>
      )}
      <ul>
        {all.map((own) => (
          <li
            key={own.component}
            className="flex flex-wrap items-baseline gap-x-3 border-b border-line py-1.5"
          >
            <span className="min-w-0 flex-1 text-lead">{own.sentence}</span>
            <Link
              className="inline-flex min-h-9 items-center text-rim underline"
              to={`/bench/${own.component}`}
            >
              To {own.name}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  )
}

function SetBack({ all, onRun }: { all: SetBackNamed[]; onRun: (what: () => Promise<unknown>) => void }) {
  return (
    <section aria-label="Begun anew">
      <h2 className="text-title">Begun anew</h2>
      <ul>
        {all.map((own) => (
          <li key={own.id} className="flex flex-wrap items-baseline gap-x-3 border-b border-line py-1.5">
            <span className="min-w-0 flex-1">
              <b>{own.name}</b>, {own.quantity === 'viscosity' ? 'flow' : 'stiffness'}, {dayOf(own.at)}
              {own.why && <span className="block text-note text-ink2">{own.why}</span>}
            </span>
            <Button
              look="quiet"
              className="no-print px-2"
              aria-label={`Take back: ${own.name} begins anew`}
              onClick={() => onRun(() => decide({ what: 'taken_back', of: own.id }))}
            >
              Take back
            </Button>
          </li>
        ))}
      </ul>
    </section>
  )
}

interface ReadingsProps {
  readings: readonly LearnedReading[]
  onRun: (what: () => Promise<unknown>) => void
}

function Readings({ readings, onRun }: ReadingsProps) {
  const [all, setAll] = useState(false)
  // On paper all of them, whatever is unfolded on the screen.
  const folded = (at: number) => (!all && at >= SHOWN ? 'hidden print:flex' : 'flex')
  const count = (own: LearnedReading, counts: boolean) =>
    onRun(() => sayOf(own.batch, { what: 'counted', of: own.test, counts }))
  return (
    <>
      <ul>
        {readings.map((own, at) => (
          <li
            key={`${own.test} ${own.quantity}`}
            className={`${folded(at)} flex-wrap items-center gap-x-3 border-b border-line py-1`}
          >
            <span className="min-w-0 flex-1">
              <Link className="font-[640] text-rim underline" to={`/log/${own.batch}`}>
                {own.name}
              </Link>
              , {dayOf(own.at)}: {own.words}
              <span className="block text-note text-ink2">
                {twoDigits(own.times)} times the book in {own.quantity === 'viscosity' ? 'flow' : 'stiffness'}
                ; {standing(own)}
              </span>
            </span>
            <Button
              look="quiet"
              className="no-print px-2"
              aria-label={`${own.counts === 'left_out' ? 'Count it again' : 'Leave it out'}: ${own.name}, ${dayOf(own.at)}`}
              onClick={() => count(own, own.counts === 'left_out')}
            >
              {own.counts === 'left_out' ? 'Count it again' : 'Leave it out'}
            </Button>
          </li>
        ))}
      </ul>
      {!all && readings.length > SHOWN && (
        <Button className="no-print mt-2" onClick={() => setAll(true)}>
          All {readings.length}
        </Button>
      )}
    </>
  )
}

function standing(own: LearnedReading): string {
  if (own.counts === 'left_out') return 'left out of what is learned'
  const apart = Math.abs(own.apart)
  const far = apart < 0.1 ? 'just where the others put it' : `${twoDigits(apart)} deviations from the others`
  return own.counts === 'does_not_fit' ? `${far}: does not fit` : far
}
