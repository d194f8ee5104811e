import { useState } from 'react'
import type { FormulaDocument, RemedyAnswer, Rescue, StepAnswer } from '../../api/client'
import { unbroken, weighed } from '../../lib/format'

interface RemedyViewProps {
  remedy: RemedyAnswer
  cautions: Rescue['cautions']
  /** The question was answered with no: the look-alike it is then. */
  onNo: (id: string) => void
  onUse: (document: FormulaDocument) => void
  onMissing: (ingredient: string) => void
}

const DEEDS: Record<StepAnswer['deed'], string> = {
  wait: 'Wait',
  rest: 'Leave it',
  warm: 'Warm',
  cool: 'Cool',
  hand: 'By hand',
  blend: 'Blend',
  whip: 'Beat',
  fold: 'Fold',
  sieve: 'Sieve',
  add: 'Put in',
  second: 'Second batch',
  discard: 'Throw away',
}

const big =
  'min-h-12 rounded-xl border-2 border-rim px-4 text-lead font-[640] text-rim hover:bg-rim-tint disabled:opacity-55'

/** One remedy, step by step. */
export function RemedyView({ remedy, cautions, onNo, onUse, onMissing }: RemedyViewProps) {
  const { tell } = remedy
  const all = [...remedy.cautions, ...cautions].filter(
    (each, at, list) => list.findIndex((other) => other.caution === each.caution) === at,
  )
  return (
    <article className="flex flex-col gap-4">
      <div>
        <h2 className="text-display leading-tight">{remedy.seen}</h2>
        <p className="mt-1">{remedy.cause}</p>
        {remedy.fired.length > 0 && (
          <p className="text-lead text-ink2">The numbers agree: {remedy.fired.map(unbroken).join('; ')}.</p>
        )}
      </div>
      {tell && (
        <p className="flex flex-wrap items-center gap-3 rounded-xl bg-well px-4 py-3">
          <b>{tell.ask}</b>
          <span>Yes: go on.</span>
          <button type="button" className={big} onClick={() => onNo(tell.no)}>
            No: {tell.no_seen.replace(/\.$/, '').toLowerCase()}
          </button>
        </p>
      )}
      <ol className="flex flex-col gap-3">
        {remedy.steps.map((step, at) => (
          <Step key={at} step={step} number={at + 1} onUse={onUse} onMissing={onMissing} />
        ))}
      </ol>
      <dl className="grid grid-cols-[140px_minmax(0,1fr)] gap-x-4 gap-y-1.5 border-t-2 border-line pt-3 max-phone:grid-cols-1">
        <dt className="font-[640]">It worked when</dt>
        <dd>{remedy.worked}</dd>
        <dt className="font-[640]">Stop</dt>
        <dd>{remedy.stop}</dd>
        {remedy.becomes.length > 0 && (
          <>
            <dt className="font-[640]">It can still be</dt>
            <dd>{remedy.becomes.join('; ')}</dd>
          </>
        )}
        <dt className="font-[640]">Next time</dt>
        <dd>{remedy.prevent}</dd>
      </dl>
      <ul className="flex flex-col gap-1.5 border-t-2 border-line pt-3 text-lead">
        {all.map((each) => (
          <li key={each.caution}>
            <b className="text-hot">Mind: </b>
            {each.words}
            {each.source !== 'common practice' && <span className="text-ink2"> {each.source}.</span>}
          </li>
        ))}
        <li className="text-ink2">Remedy: {remedy.source}.</li>
      </ul>
    </article>
  )
}

interface StepProps {
  step: StepAnswer
  number: number
  onUse: (document: FormulaDocument) => void
  onMissing: (ingredient: string) => void
}

function Step({ step, number, onUse, onMissing }: StepProps) {
  const { addition, document } = step
  const asks = addition?.asks_first ?? []
  const [allowed, setAllowed] = useState(asks.length === 0)
  const heat = step.aim_c != null ? `${step.aim_c.toFixed(1)} °C` : range(step.temperature_c)
  const does = addition && addition.basis !== 'breaks' && !addition.not_at_hand
  return (
    <li className="flex gap-4 border-t border-line pt-3 first:border-0 first:pt-0">
      <span
        aria-hidden="true"
        className="grid h-11 w-11 shrink-0 place-items-center rounded-full bg-ink text-title font-[720] text-enamel"
      >
        {number}
      </span>
      <div className="flex min-w-0 flex-1 flex-col gap-1.5">
        <p className="text-title leading-snug">
          <b>{DEEDS[step.deed]}</b>
          {heat && !addition && (
            <>
              {' '}
              <b className="whitespace-nowrap">
                {step.deed === 'warm' || step.deed === 'cool' ? 'to ' : 'at '}
                {heat}
              </b>
            </>
          )}
          {step.minutes != null && !addition && (
            <span className="whitespace-nowrap text-ink2">, {duration(step.minutes)}</span>
          )}
          {does && allowed && (
            <>
              {' '}
              <b className="text-display whitespace-nowrap text-rim">{weighed(addition.grams)} g</b>{' '}
              {unbroken(addition.name)}
            </>
          )}
          {addition && !(does && allowed) && ` ${unbroken(addition.name)}`}
        </p>
        <p>{step.words}</p>
        {addition?.not_at_hand && <p className="text-ink2">Not at hand: take the next.</p>}
        {addition?.basis === 'breaks' && <p className="text-hot">Leave it: {addition.why_not}.</p>}
        {does && !allowed && (
          <p className="flex flex-wrap items-center gap-3">
            <span className="text-hot">It {asks.join(', ')}.</span>
            <button type="button" className={big} onClick={() => setAllowed(true)}>
              That is allowed
            </button>
          </p>
        )}
        {does && allowed && (
          <p className="text-ink2">
            First {weighed(addition.first_g)} g, then look. Never more than {weighed(addition.most_g)} g.{' '}
            {addition.basis === 'practice' && 'The usual first amount'}
            {addition.basis === 'practice' && (addition.why_not ? `: ${addition.why_not}.` : '.')}
            {addition.basis === 'not_by_itself' && `It is ${addition.why_not ?? ''}.`}
          </p>
        )}
        {step.then && (allowed || !addition) && addition?.basis !== 'breaks' && (
          <p>
            Then: <b>{step.then}.</b>
            {step.besides.length > 0 && (
              <span className="text-lead text-ink2"> {step.besides.map(unbroken).join('; ')}.</span>
            )}
          </p>
        )}
        {document && (allowed || !addition) && (
          <p className="flex flex-wrap gap-3">
            {addition ? (
              <>
                <button type="button" className={big} onClick={() => onUse(half(document, step))}>
                  {weighed(addition.first_g)} g went in
                </button>
                <button type="button" className={big} onClick={() => onUse(document)}>
                  All {weighed(addition.grams)} g went in
                </button>
                <button type="button" className={big} onClick={() => onMissing(addition.ingredient)}>
                  Not at hand
                </button>
              </>
            ) : (
              <button type="button" className={big} onClick={() => onUse(document)}>
                Done
              </button>
            )}
          </p>
        )}
      </div>
    </li>
  )
}

/** The formula when only the first half went in. */
function half(document: FormulaDocument, step: StepAnswer): FormulaDocument {
  const { addition } = step
  if (!addition) return document
  const left = addition.grams - addition.first_g
  return {
    ...document,
    lines: document.lines.map((line) =>
      line.ingredient === addition.ingredient
        ? { ...line, amount: `${Math.round((parseFloat(line.amount) - left) * 100) / 100} g` }
        : line,
    ),
  }
}

function range(t: [number, number] | number[] | null | undefined): string | null {
  const [low, high] = t ?? []
  if (low === undefined || high === undefined) return null
  return low === high ? `${low} °C` : `${low}–${high} °C`
}

function duration(minutes: number): string {
  return minutes >= 180 ? `${Math.round(minutes / 60)} h` : `${minutes} min`
}
