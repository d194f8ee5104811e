import type { StackAnswer } from '../../api/client'
import { weighed } from '../../lib/format'
import { Drawing } from '../stack/Drawing'

interface PrintedCakeProps {
  cake: StackAnswer
  count: number
}

/** A cake on paper: the drawing, its places to tick off from the board up, and what is found. */
export function PrintedCake({ cake, count }: PrintedCakeProps) {
  const wrong = cake.findings.filter((finding) => finding.standing !== 'holds')
  return (
    <section className="mt-2">
      <h2 className="text-[15pt]">
        {count > 1 && `${count} × `}
        {cake.name || 'Cake'}: {cake.headline}
      </h2>
      <div className="w-[690px]" inert>
        <Drawing answer={cake} selected={null} onSelect={() => undefined} zoom={1} board={null} fixed={690} />
      </div>
      <table className="mt-2 w-full text-left">
        <thead className="text-[9pt]">
          <tr>
            <th className="w-7" />
            <th>From the board up</th>
            <th>What</th>
            <th className="text-right">g in each</th>
          </tr>
        </thead>
        <tbody>
          {cake.places.map((place) => (
            <tr key={place.path} className="break-inside-avoid border-t border-black/40">
              <td>
                <span className="inline-block h-[10pt] w-[10pt] border border-black" />
              </td>
              <td className="py-0.5">
                Tier {place.tier + 1}: {place.words.split(', ')[0]}
              </td>
              <td>{place.name ?? 'not chosen yet'}</td>
              <td className="text-right font-[700]">{weighed(place.grams)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {wrong.length > 0 && (
        <>
          <h3 className="mt-3 text-[13pt] font-[720]">To mind</h3>
          <ul>
            {wrong.map((finding, at) => (
              <li key={at}>{finding.sentence}</li>
            ))}
          </ul>
        </>
      )}
    </section>
  )
}
