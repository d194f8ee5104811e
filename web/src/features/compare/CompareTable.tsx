import { Link } from 'react-router'
import type { Comparison } from '../../api/client'
import { weighed } from '../../lib/format'

type Row = Comparison['lines'][number]

/** Ingredients, balance and figures, a column each; rows that differ are marked and say so. */
export function CompareTable({ comparison, addresses }: { comparison: Comparison; addresses: string[] }) {
  const { columns } = comparison
  return (
    <table className="w-full border-collapse text-left">
      <thead>
        <tr className="border-b-2 border-ink align-bottom">
          <th scope="col" className="py-1 pr-2 text-small font-[450] text-ink2">
            per cent of total, unless said
          </th>
          {columns.map((column, k) => (
            <th key={addresses[k]} scope="col" className="py-1 pl-3 text-right">
              <Link
                className="font-head text-lead leading-tight hover:underline"
                to={`/bench/${addresses[k]?.split('@')[0] ?? ''}`}
              >
                {column.name || `Formula ${k + 1}`}
              </Link>
              <span className="block text-small font-[450] text-ink2">
                {column.family}, {weighed(column.batch_mass_g)} g, to {column.job}
              </span>
            </th>
          ))}
        </tr>
      </thead>
      <Rows title="Ingredients" rows={comparison.lines} />
      <Rows title="Balance" rows={comparison.phases} />
      <Rows title="Numbers" rows={comparison.figures} showBase />
      <tbody>
        <tr className="border-t-2 border-ink">
          <th scope="row" className="py-1.5 text-left font-[640]">
            Comes out right
          </th>
          {columns.map((column, k) => (
            <td key={addresses[k]} className="py-1.5 pl-3 text-right">
              {column.at.chance_words}
            </td>
          ))}
        </tr>
      </tbody>
    </table>
  )
}

function Rows({ title, rows, showBase = false }: { title: string; rows: Row[]; showBase?: boolean }) {
  if (rows.length === 0) return null
  const span = (rows[0]?.texts.length ?? 0) + 1
  return (
    <tbody>
      <tr>
        <th scope="rowgroup" colSpan={span} className="pt-3 pb-0.5 text-small font-[450] text-ink2">
          {title}
        </th>
      </tr>
      {rows.map((row) => (
        <tr
          key={`${row.name} ${row.base}`}
          className={`border-t border-line ${row.differs ? 'bg-rim-tint' : 'text-ink2'}`}
        >
          <th scope="row" className={`py-1 pr-2 pl-1.5 ${row.differs ? 'font-[640]' : 'font-[450]'}`}>
            {row.name}
            {showBase && <span className="text-small font-[450] text-ink2"> {row.base}</span>}
            <span className="sr-only">{row.differs ? ', differs' : ', the same'}</span>
          </th>
          {row.texts.map((text, k) => (
            <td
              key={k}
              className={`py-1 pr-1.5 pl-3 text-right ${row.differs ? 'font-[680]' : ''} ${
                row.values[k] == null ? 'text-ink3 font-[450]' : ''
              }`}
            >
              {text}
            </td>
          ))}
        </tr>
      ))}
    </tbody>
  )
}
