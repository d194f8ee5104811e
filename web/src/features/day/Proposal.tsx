import { useEffect, useRef } from 'react'
import type { Bent, CureAsk, DayView, PlanDocument, PlanReply, Quicker, Taken } from '../../api/client'
import { Button } from '../../ui/Button'
import { Cures } from './Cures'
import type { Happening } from './queries'

/** A plan that is shown and not used yet. */
export interface Offer {
  /** What it is, in a sentence. */
  sentence: string
  /** Why, link by link. */
  because?: string[]
  plan: PlanDocument | null
  view: DayView | null
  /** What moves, in words and by step. */
  moved: { step: number; words: string }[]
  /** Nothing goes past a limit. */
  good: boolean
  /** The button that uses it. */
  use: string
  /** What it answers, where something happened. */
  happening?: Happening
  /** What it was asked, where there may be something better than what it takes. */
  saved?: CureAsk
}

export function offerOfBent(bent: Bent): Offer {
  return {
    sentence: bent.sentence,
    because: bent.because,
    plan: bent.plan ?? null,
    view: bent.view ?? null,
    moved: bent.moved,
    good: bent.level === 'push' || bent.level === 'repair',
    use:
      bent.moved.length === 0
        ? 'Use this'
        : `Move ${bent.moved.length} ${bent.moved.length === 1 ? 'step' : 'steps'}`,
  }
}

export function offerOfTaken(taken: Taken): Offer {
  return {
    sentence: taken.sentence,
    plan: taken.plan ?? null,
    view: taken.view ?? null,
    moved: taken.moved,
    good: taken.yes,
    use: taken.yes ? 'Take the order' : 'Take it all the same',
  }
}

export function offerOfReply(reply: PlanReply): Offer {
  // The rest stands above, as what is not in it.
  const because = reply.because[0] ?? ''
  const whole = reply.plan.start.every((begins) => begins !== null)
  return {
    sentence: [reply.view.sentence, because, reply.stopped ? 'Stopped: the best so far.' : '']
      .filter((words) => words !== '')
      .join(' '),
    plan: whole ? reply.plan : null,
    view: reply.view,
    moved: [],
    good: reply.view.stands,
    use: 'Use this plan',
  }
}

interface ProposalProps {
  offer: Offer
  /** The plan that stands. */
  plan: PlanDocument
  /** The same that happened, with a wait made shorter besides. */
  onQuicker: ((quicker: Quicker) => void) | null
  /** Whether another plan stands meanwhile. */
  over: boolean
  keeping: boolean
  onUse: () => void
  onLeave: () => void
}

/** What would move, before anything does. */
export function Proposal({ offer, plan, onQuicker, over, keeping, onUse, onLeave }: ProposalProps) {
  const exceeds = offer.view?.exceeds ?? []
  const box = useRef<HTMLElement>(null)
  // Asked from further down, it is above what the eye is on.
  useEffect(() => {
    // A newer browser answers with a promise: that is no way to clean up.
    void box.current?.scrollIntoView({ block: 'nearest' })
  }, [offer])
  return (
    <section
      ref={box}
      aria-label="A plan that is not used yet"
      className={`rounded-tray border-[3px] px-4 py-3 ${offer.good ? 'border-rim' : 'border-hot'}`}
    >
      <div className="flex flex-wrap items-start justify-between gap-3">
        <p role="status" className="min-w-0 flex-1 basis-72 font-head text-lead font-[640]">
          {offer.sentence}
        </p>
        <div className="flex flex-wrap gap-2">
          {offer.plan && (
            <Button look="primary" disabled={keeping} onClick={onUse}>
              {offer.use}
            </Button>
          )}
          <Button onClick={onLeave}>{over ? 'Keep the plan as it is' : 'Leave it'}</Button>
        </div>
      </div>
      {offer.because && offer.because.length > 0 && (
        <ol aria-label="Why not" className="mt-2 text-note">
          {offer.because.map((words) => (
            <li key={words} className="border-t border-line py-1">
              {words}
            </li>
          ))}
        </ol>
      )}
      {exceeds.length > 0 && (
        <ul aria-label="Past a limit" className="mt-2 text-hot">
          {exceeds.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      )}
      {offer.saved && <Cures asked={offer.saved} plan={plan} onQuicker={onQuicker} />}
      {offer.moved.length > 0 && (
        <details className="mt-2" open={offer.moved.length <= 6}>
          <summary className="min-h-9 cursor-pointer py-1.5 font-[640] text-rim">
            What moves ({offer.moved.length})
          </summary>
          <ul className="max-h-56 overflow-y-auto text-note">
            {offer.moved.map((own) => (
              <li key={own.step} className="border-t border-line py-1">
                {own.words}
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  )
}
