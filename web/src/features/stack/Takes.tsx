import type { PartAnswer, StackAnswer } from '../../api/client'
import { unbroken, weighed } from '../../lib/format'
import { lifted } from '../../lib/mixture'
import { TinyBar } from '../../ui/phases'

interface TakesProps {
  answer: StackAnswer
  /** How many of this cake. */
  count: number
  onBench: (part: PartAnswer) => void
}

/** What the cake takes of each component and bake, and how it is shared out. */
export function Takes({ answer, count, onBench }: TakesProps) {
  return (
    <section aria-label="What it takes">
      <ul>
        {answer.parts.map((part) => (
          <li key={`${part.kind}${part.key}`} className="border-t border-line py-1.5 first:border-0">
            <div className="flex items-baseline gap-2.5">
              <Swatch tint={part.tint} />
              <span className="min-w-0 flex-1 leading-tight">{unbroken(part.name)}</span>
              <b className="text-lead whitespace-nowrap">
                {count > 1 && <span className="text-body font-[450]">{count} × </span>}
                {weighed(part.grams)} g
              </b>
              <button
                type="button"
                className="min-w-[104px] rounded text-right text-note whitespace-nowrap text-ink2 hover:text-rim hover:underline disabled:no-underline"
                disabled={part.kind === 'bake'}
                title={part.kind === 'bake' ? undefined : 'Bring the formula to this size on the Bench'}
                onClick={() => onBench(part)}
              >
                {part.kind === 'bake' ? 'batter' : 'make'} {weighed(part.to_make_g * count)} g
              </button>
            </div>
            <div className="mt-1 flex items-center gap-3 pl-[30px]">
              <TinyBar shares={part.phases_of_total_percent} full={100} width={150} height={11} />
              <span
                className="min-w-0 flex-1 truncate text-small text-ink2"
                title={part.shares.map((each) => each.words).join(', ')}
              >
                {part.shares.map((each) => each.words).join(', ')}
              </span>
            </div>
          </li>
        ))}
      </ul>
      {answer.parts.length === 0 && (
        <p className="text-ink2">Nothing yet: choose what its places are made of.</p>
      )}
    </section>
  )
}

/** A dab of the mixture's own colour. */
export function Swatch({ tint }: { tint: string | null | undefined }) {
  return (
    <span
      aria-hidden="true"
      className="inline-block h-5 w-5 shrink-0 translate-y-1 rounded-md border border-ink"
      style={{ background: tint ? lifted(tint) : 'var(--well)' }}
    />
  )
}
