import type { Batch, BatchAsk, OrderAnswer, OrderDocument } from '../../api/client'
import { price, unbroken, weighed } from '../../lib/format'
import { Bowl } from '../../ui/Bowl'
import { Button } from '../../ui/Button'
import { MakeOf } from '../batch/MakeOf'
import { Swatch } from '../stack/Takes'
import { ListButtons } from './ListButtons'

interface MakeViewProps {
  document: OrderDocument
  /** Its key; none for one that is not kept. */
  order: string | null
  answer: OrderAnswer | undefined
  currency: string
  onBench: (component: string, grams: number) => void
}

/** What must be weighed: every batch over all cakes, and how it is shared out. */
export function MakeView({ document, order, answer, currency, onBench }: MakeViewProps) {
  const batches = answer?.batches ?? []
  // What goes into another batch is weighed there again: it is no more of it.
  const again = batches.flatMap((batch) => batch.lines).filter((line) => line.made_here)
  const total =
    batches.reduce((sum, batch) => sum + batch.to_make_g, 0) -
    again.reduce((sum, line) => sum + line.mass_g, 0)
  return (
    <section aria-label="To weigh">
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <h1 className="text-display">
          {batches.length === 0
            ? 'Nothing to weigh yet'
            : `${batches.length} batches, ${(total / 1000).toFixed(1)} kg in all`}
        </h1>
        <ListButtons document={document} lists={['weighing', 'bill']} />
      </div>
      <div className="mt-3 grid grid-cols-[repeat(auto-fill,minmax(min(360px,100%),1fr))] gap-x-8 gap-y-6">
        {batches.map((batch) => (
          <article key={`${batch.kind}${batch.key}${batch.name}`} aria-label={batch.name}>
            <div className="flex items-baseline gap-2.5 border-b-2 border-ink pb-1">
              <Swatch tint={batch.tint} />
              <h2 className="min-w-0 flex-1 text-title">{unbroken(batch.name)}</h2>
              <b className="text-title whitespace-nowrap">{weighed(batch.to_make_g)} g</b>
            </div>
            {batch.made_for_sentence && (
              <p className="flex items-center gap-1.5 pt-1 leading-tight">
                <Bowl />
                {batch.made_for_sentence}
              </p>
            )}
            <BatchTable batch={batch} />
            {batch.taken_off.map((words) => (
              <p key={words} className="pt-1">
                {words}
              </p>
            ))}
            <p className="mt-1 text-note text-ink2">
              {[
                batch.shares.map((share) => share.words).join(', '),
                batch.times > 0 && `${batch.times.toFixed(2)} times the formula`,
                batch.cost != null && price(batch.cost, currency),
              ]
                .filter(Boolean)
                .join('; ')}
              .
            </p>
            {batch.kind === 'component' && (
              <div className="flex flex-wrap gap-2">
                <MakeOf
                  component={batch.key}
                  name={batch.name}
                  grams={batch.weighed_g}
                  madeFor={madeFor(batch, document.name ?? '', order)}
                />
                <Button
                  className="mt-1 px-3"
                  onClick={() => onBench(batch.key.replace(/@.*/, ''), batch.to_make_g)}
                >
                  Scale to {weighed(batch.to_make_g)} g on the Bench
                </Button>
              </div>
            )}
          </article>
        ))}
      </div>
    </section>
  )
}

const MOST_NAMED = 60

/** What a batch is shared out to: the places of the cakes, and what else it goes into. */
function madeFor(batch: Batch, name: string, order: string | null): NonNullable<BatchAsk['made_for']> {
  const of = order ? { order } : {}
  const places = batch.shares.map((own) => ({
    ...of,
    name: `${name}, ${own.what}`.slice(0, 200),
    grams: own.count * own.each_g,
    count: own.count,
  }))
  const others = batch.made_for.map((own) => ({ ...of, name: own.name.slice(0, 200), grams: own.mass_g }))
  const every = [...places, ...others]
  // A batch names sixty at most: what is more is counted together, and nothing of it is lost.
  const more = every.slice(MOST_NAMED - 1)
  const together = {
    ...of,
    name: `and ${more.length} more`,
    grams: more.reduce((sum, own) => sum + own.grams, 0),
  }
  const all = every.length > MOST_NAMED ? [...every.slice(0, MOST_NAMED - 1), together] : every
  return all.length > 0 ? all : [{ ...of, name }]
}

/** The lines of a batch. */
export function BatchTable({ batch }: { batch: Batch }) {
  if (batch.lines.length === 0) return <p className="py-1">Bought, or without a batter yet.</p>
  return (
    <table className="w-full">
      <thead className="sr-only">
        <tr>
          <th>Ingredient</th>
          <th>g</th>
          <th>That is</th>
        </tr>
      </thead>
      <tbody>
        {batch.lines.map((line, at) => (
          <tr key={at} className="border-b border-line">
            <td className="py-0.5">
              {unbroken(line.name)}
              {line.made_here && (
                <span className="ml-2 inline-flex items-center gap-1 text-small text-ink2">
                  <Bowl />
                  made first
                </span>
              )}
            </td>
            <td className="w-24 text-right text-lead font-[700]">{weighed(line.mass_g)} g</td>
            <td className="w-28 pl-3 text-[13.5px] text-ink2">{line.in_pieces ?? ''}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
