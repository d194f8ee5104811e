import type { SpoonSeen, TrainerLine } from '../../api/client'
import type { TrainerAsked } from '../../api/client'
import { weighed } from '../../lib/format'
import { lifted } from '../../lib/mixture'
import { Spoon } from '../bench/Spoon'

/** What the question shows: the formula with its numbers, or a spoonful. */
export function Seen({ question }: { question: TrainerAsked['question'] }) {
  if (question.spoon) {
    return (
      <figure className="flex justify-center" aria-label={`On the spoon: ${question.spoon.words}`}>
        <SpoonOf seen={question.spoon} large />
      </figure>
    )
  }
  return (
    <section aria-label="What is in it" className="min-w-0">
      <h2 className="text-title">{question.name}</h2>
      {question.changed && <p className="font-[640] text-rim">{question.changed}</p>}
      <Lines lines={question.lines} grams />
      <p className="mt-2 text-lead">{question.facts.join(', ')} of all of it</p>
    </section>
  )
}

/** What is in a bowl, line by line. */
export function Lines({ lines, grams = false }: { lines: readonly TrainerLine[]; grams?: boolean }) {
  return (
    <ul className="text-left">
      {lines.map((own, at) => (
        <li key={`${at} ${own.name}`} className="flex gap-3 border-b border-line py-0.5 font-normal">
          <span className="min-w-0 flex-1">{own.name}</span>
          {grams && <span className="text-right">{weighed(own.grams)} g</span>}
          <span className="w-16 text-right text-ink2">{own.percent.toFixed(own.percent < 10 ? 1 : 0)} %</span>
        </li>
      ))}
    </ul>
  )
}

/** A spoonful, drawn. */
export function SpoonOf({ seen, large = false }: { seen: SpoonSeen; large?: boolean }) {
  return (
    <Spoon
      yieldStress={seen.yield_stress_pa}
      viscosity={seen.viscosity_pa_s}
      density={seen.density_kg_m3}
      colour={lifted(seen.tint)}
      width={large ? 220 : 132}
      height={large ? 300 : 180}
    />
  )
}
