import { createPortal } from 'react-dom'
import type { OrderAnswer, OrderDocument, StackAnswer } from '../../api/client'
import { unbroken, weighed } from '../../lib/format'
import { Incomplete } from './Incomplete'
import { BatchTable } from './MakeView'
import { LabelText } from './LabelsView'
import type { ViewName } from './OrderHead'
import { PrintedCake } from './PrintedCake'
import { ShoppingTable } from './ShopView'
import { when } from './when'

interface OrderPrintProps {
  document: OrderDocument
  answer: OrderAnswer | undefined
  view: ViewName
  cakeAt: number
  currency: string
}

/** What comes out of the printer: the view that is open, for A4 or Letter, black on white. */
export function OrderPrint({ document, answer, view, cakeAt, currency }: OrderPrintProps) {
  if (!answer) return null
  const cake = answer.cakes[cakeAt]
  return createPortal(
    <div data-testid="print" className="hidden bg-white text-[11pt] text-black print:block">
      <Head document={document} answer={answer} />
      <Incomplete of={view === 'cake' ? (cake?.incomplete ?? []) : answer.incomplete} />
      {view === 'cake' && cake && <PrintedCake cake={cake} count={document.cakes[cakeAt]?.count ?? 1} />}
      {view === 'order' && <Summary answer={answer} document={document} />}
      {view === 'make' &&
        answer.batches.map((batch) => (
          <section key={`${batch.kind}${batch.key}${batch.name}`} className="mt-4 break-inside-avoid">
            <h2 className="flex justify-between border-b-2 border-black text-[15pt]">
              <span>{unbroken(batch.name)}</span>
              <span>{weighed(batch.to_make_g)} g</span>
            </h2>
            <BatchTable batch={batch} />
            {batch.made_for_sentence && <p className="text-[11pt]">{batch.made_for_sentence}</p>}
            {batch.taken_off.map((words) => (
              <p key={words} className="text-[11pt]">
                {words}
              </p>
            ))}
            {batch.shares.length > 0 && (
              <p className="text-[10pt]">{batch.shares.map((share) => share.words).join(', ')}.</p>
            )}
          </section>
        ))}
      {view === 'shop' && (
        <section className="mt-3">
          <h2 className="text-[15pt]">To buy</h2>
          <ShoppingTable answer={answer} currency={currency} />
        </section>
      )}
      {view === 'labels' && (
        <div className="mt-3 grid grid-cols-2 gap-3">
          {answer.labels.flatMap((label, at) =>
            Array.from({ length: Math.min(label.copies, 400) }, (_, copy) => (
              <div key={`${at}-${copy}`} className="break-inside-avoid border border-black p-3">
                <LabelText label={label} />
              </div>
            )),
          )}
        </div>
      )}
      {view !== 'labels' && (
        <p className="mt-4 text-[9pt]">
          Predictions carry their uncertainty; taste, probe and look. Allergens: check your own labels. Your
          local food code decides.
        </p>
      )}
    </div>,
    window.document.body,
  )
}

function Head({ document, answer }: { document: OrderDocument; answer: OrderAnswer }) {
  return (
    <header className="border-b-2 border-black pb-1">
      <h1 className="text-[20pt] leading-tight">{document.name || 'Order'}</h1>
      <p>
        {when(document.served_at) ?? 'no date yet'}
        {document.servings ? `, for ${document.servings}` : ''}; {answer.headline}.
      </p>
    </header>
  )
}

function Summary({ document, answer }: { document: OrderDocument; answer: OrderAnswer }) {
  return (
    <section className="mt-3">
      {document.note && <p>{document.note}</p>}
      <ul className="mt-2">
        {answer.cakes.map((cake: StackAnswer, at) => (
          <li key={at} className="border-t border-black/40 py-1">
            <b>
              {document.cakes[at]?.count ?? 1} × {cake.name || `Cake ${at + 1}`}
            </b>
            : {cake.headline}. {weighed(cake.finished_g)} g, {cake.portions} portions each.
          </li>
        ))}
      </ul>
      <p className="mt-2">
        <b>Contains</b> {answer.allergens.join(', ') || 'no known allergens'}.
      </p>
      {answer.cautions.map((caution) => (
        <p key={caution.caution} className="mt-1">
          {caution.words}
        </p>
      ))}
      {answer.leftovers.length > 0 && (
        <>
          <h2 className="mt-3 text-[15pt]">Left over</h2>
          <ul>
            {answer.leftovers.map((left) => (
              <li key={left.what}>
                {left.what}: {left.words}. {left.keeps}.
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  )
}
