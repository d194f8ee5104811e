import type { OrderAnswer, OrderDocument, TapeLabel } from '../../api/client'
import type { Edit } from '../../desk/history'
import { writeAt } from '../../lib/path'
import { ListButtons } from './ListButtons'
import { onDay } from './when'
import { TextField } from '../../ui/TextField'

interface LabelsViewProps {
  document: OrderDocument
  answer: OrderAnswer | undefined
  edit: Edit<OrderDocument>
}

/** Tape for every batch and every cake: what, made, use by, allergens, keep at. */
export function LabelsView({ document, answer, edit }: LabelsViewProps) {
  const labels = answer?.labels ?? []
  const copies = labels.reduce((sum, label) => sum + label.copies, 0)
  return (
    <section aria-label="Labels">
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <h1 className="text-display">{copies === 0 ? 'No labels yet' : `${copies} labels to print`}</h1>
        <TextField
          label="Made on"
          type="date"
          value={document.made_on ?? ''}
          onChange={(day) => edit((own) => writeAt(own, 'made_on', day === '' ? null : day))}
        />
        <ListButtons document={document} lists={['labels']} />
      </div>
      <ul className="mt-4 grid grid-cols-[repeat(auto-fill,minmax(min(320px,100%),1fr))] gap-5">
        {labels.map((label, at) => (
          <li key={at}>
            <div className="tape torn px-6 py-3">
              <LabelText label={label} />
            </div>
            <p className="mt-1 text-note text-ink2">
              {label.copies === 1 ? 'one label' : `${label.copies} of this label`}
            </p>
          </li>
        ))}
      </ul>
      <p className="mt-4 text-note text-ink2">
        Days are the usual ones of the trade, not tested on your shelf. Your food-safety plan and your local
        food code decide.
      </p>
    </section>
  )
}

/** What stands on a label. */
export function LabelText({ label }: { label: TapeLabel }) {
  return (
    <>
      <b className="block font-head text-title leading-tight">{label.what}</b>
      <span className="block">
        {label.amount}
        {label.order && `, ${label.order}`}
      </span>
      <span className="mt-1 block font-[640]">
        {label.made_on
          ? `Made ${onDay(label.made_on) ?? ''}, use by ${onDay(label.use_by) ?? ''}`
          : `Made ________, keeps ${label.keeps_days} ${label.keeps_days === 1 ? 'day' : 'days'}`}
      </span>
      <span className="block">Keep {label.keep_at}</span>
      {label.allergens.length > 0 && (
        <span className="block">
          <b>Contains</b> {label.allergens.join(', ')}
        </span>
      )}
      {label.incomplete.length > 0 && (
        <span className="block border-2 border-current px-1 font-[720]">
          INCOMPLETE: {label.incomplete.join(' ')}
        </span>
      )}
      {label.notes.length > 0 && <span className="block font-[640]">{label.notes.join('; ')}</span>}
    </>
  )
}
