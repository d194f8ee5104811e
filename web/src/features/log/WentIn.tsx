import type { BatchNow, BatchView } from '../../api/client'
import { unbroken, weighed } from '../../lib/format'

interface WentInProps {
  batch: BatchNow['kept']['document']
  view: BatchView
}

/** What went in, beside what was planned. */
export function WentIn({ batch, view }: WentInProps) {
  const assumed = batch.made_at != null
  return (
    <section aria-label="What went in">
      <h2 className="text-title">What went in</h2>
      {assumed && (
        <p className="text-note text-ink2">
          It was written in afterwards: what nobody weighed is as planned.
        </p>
      )}
      <table className="w-full border-collapse text-left">
        <thead>
          <tr className="border-b border-line2 text-note text-ink2">
            <th scope="col" className="py-1 font-[450]">
              Ingredient
            </th>
            <th scope="col" className="py-1 text-right font-[450]">
              planned, g
            </th>
            <th scope="col" className="py-1 text-right font-[450]">
              went in, g
            </th>
            <th scope="col" className="py-1 pl-4 font-[450]">
              lot
            </th>
          </tr>
        </thead>
        <tbody>
          {view.lines.map((line) => (
            <tr key={line.line} className="border-b border-line">
              <th scope="row" className="py-1 font-[640]">
                {unbroken(line.name)}
              </th>
              <td className="py-1 text-right text-ink2">{weighed(line.band.mark_g)}</td>
              <td className="py-1 text-right font-[640]">
                {line.stands === 'left_out' ? 'left out' : weighed(line.in_g)}
              </td>
              <td className="py-1 pl-4 text-note text-ink2">{line.lots.join(', ')}</td>
            </tr>
          ))}
          <tr>
            <th scope="row" className="py-1 font-[640]">
              All of it
            </th>
            <td />
            <td className="py-1 text-right font-[720]">{weighed(view.in_g)}</td>
            <td className="py-1 pl-4 text-note text-ink2">
              {view.yielded_g != null && `${weighed(view.yielded_g)} g came out`}
            </td>
          </tr>
        </tbody>
      </table>
      {view.added.length > 0 && <p className="mt-1">Besides: {view.added.join(', ')}.</p>}
    </section>
  )
}
