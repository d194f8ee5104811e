import { useState } from 'react'
import type { Part } from '../../api/client'
import { PARTS } from './draft'

interface CompositionTableProps {
  parts: Partial<Record<Part, string>>
  sources: Partial<Record<Part, string>>
  onPart: (part: Part, text: string) => void
}

/** What it is made of, every number open to the hand, with where it is from. */
export function CompositionTable({ parts, sources, onPart }: CompositionTableProps) {
  const [whole, setWhole] = useState(false)
  const shown = PARTS.filter(([part]) => whole || parts[part] !== undefined)
  return (
    <div>
      <table className="w-full text-left">
        <thead>
          <tr className="border-b border-line text-small text-ink2">
            <th scope="col" className="py-1 font-[450]">
              In 100 g
            </th>
            <th scope="col" className="py-1 font-[450]">
              g
            </th>
            <th scope="col" className="py-1 pl-3 font-[450]">
              how we know
            </th>
          </tr>
        </thead>
        <tbody>
          {shown.map(([part, words]) => (
            <tr key={part} className="border-b border-line">
              <th scope="row" className="py-0.5 pr-2 font-[560]">
                {words}
              </th>
              <td className="py-0.5">
                <input
                  aria-label={`${words}, g in 100 g`}
                  inputMode="decimal"
                  autoComplete="off"
                  className="min-h-8 w-20 rounded-md border border-line2 bg-enamel px-1.5 text-right font-[640] pointer-coarse:min-h-11"
                  value={parts[part] ?? ''}
                  onChange={(event) => onPart(part, event.target.value)}
                />
              </td>
              <td className="py-0.5 pl-3 text-small leading-tight text-ink2">{sources[part]}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <button
        type="button"
        className="mt-1 rounded-md px-1 font-[640] text-rim underline pointer-coarse:min-h-11"
        onClick={() => setWhole(!whole)}
      >
        {whole ? 'Only what it has' : shown.length === 0 ? 'Write it by hand' : 'Something else is in it'}
      </button>
    </div>
  )
}
