import type { OrderAnswer, OrderDocument } from '../../api/client'
import { price, unbroken, weighed } from '../../lib/format'
import { ListButtons } from './ListButtons'

interface ShopViewProps {
  document: OrderDocument
  answer: OrderAnswer | undefined
  currency: string
}

/** What to buy, in packs, with its price; and what is left over. */
export function ShopView({ document, answer, currency }: ShopViewProps) {
  const lines = answer?.shopping ?? []
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_350px] gap-x-8 gap-y-5 max-tablet:grid-cols-1">
      <section aria-label="To buy">
        <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
          <h1 className="text-display">
            {lines.length === 0
              ? 'Nothing to buy yet'
              : `${lines.length} things, ${price(answer?.cost.packs ?? 0, currency)}`}
          </h1>
          <ListButtons document={document} lists={['shopping']} />
        </div>
        <div className="mt-2 overflow-x-auto">
          <ShoppingTable answer={answer} currency={currency} />
        </div>
      </section>
      <aside aria-label="Left over" className="border-l border-line pl-6 max-tablet:border-0 max-tablet:pl-0">
        <h2 className="text-title">Left over</h2>
        {answer?.leftovers.length === 0 && <p className="text-ink2">Nothing worth a label.</p>}
        <ul>
          {answer?.leftovers.map((left) => (
            <li key={left.what} className="border-t border-line py-2 first:border-0">
              <b>{unbroken(left.what)}</b>: {left.words}.
              {left.serves.length > 0 && <span> Good for {left.serves.slice(0, 4).join('; ')}.</span>}
              <span className="block text-note text-ink2">{left.keeps}.</span>
            </li>
          ))}
        </ul>
      </aside>
    </div>
  )
}

/** The shopping list, shelf by shelf. */
export function ShoppingTable({ answer, currency }: { answer: OrderAnswer | undefined; currency: string }) {
  const lines = answer?.shopping ?? []
  return (
    <table className="w-full text-left">
      <thead className="text-small text-ink2">
        <tr>
          <th className="w-8">
            <span className="sr-only">Bought</span>
          </th>
          <th>What</th>
          <th className="text-right">Needed</th>
          <th className="pl-4">To buy</th>
          <th className="pl-4 text-right">Price</th>
          <th className="pl-4">For</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((line, at) => (
          <tr key={line.ingredient || line.name} className="border-t border-line align-baseline">
            <td>
              <span aria-hidden="true" className="inline-block h-4 w-4 border-2 border-current" />
            </td>
            <td className="py-1">
              {unbroken(line.name)}
              {lines[at - 1]?.group !== line.group && (
                <span className="ml-2 text-small text-ink2">{line.group}</span>
              )}
            </td>
            <td className="text-right whitespace-nowrap">
              <b>{weighed(line.needed_g)} g</b>
              {line.in_pieces && <span className="block text-small text-ink2">{line.in_pieces}</span>}
            </td>
            <td className="pl-4 whitespace-nowrap">
              {line.packs != null && line.pack_g != null
                ? `${line.packs} × ${weighed(line.pack_g)} g`
                : 'as it is sold'}
            </td>
            <td className="pl-4 text-right whitespace-nowrap">
              {line.price != null ? price(line.price, currency) : ''}
            </td>
            <td className="pl-4 text-[13.5px] text-ink2">{line.used_in.join(', ')}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
