import { Link, useSearchParams } from 'react-router'
import type { Beside, BesideRow } from '../../api/client'
import { dayOf } from '../../lib/format'
import { useTitle } from '../../lib/hooks'
import { Button } from '../../ui/Button'
import { NotRead } from '../../ui/NotRead'
import { useBeside } from './queries'

const GROUPS: readonly (readonly [BesideRow['group'], string])[] = [
  ['outcome', 'How it came out'],
  ['bowl', 'What went in'],
  ['making', 'How it was made'],
]

/** Two or three batches beside each other, what differs marked. */
export function BesidePage() {
  useTitle('Batches beside each other')
  const [asked] = useSearchParams()
  const keys = (asked.get('keys') ?? '').split(',').filter(Boolean)
  const found = useBeside(keys)
  if (found.isError && !found.data) {
    return (
      <NotRead title="These cannot be put beside each other" error={found.error} onAgain={found.refetch}>
        <ToLog />
      </NotRead>
    )
  }
  if (keys.length < 2) {
    return (
      <div className="tray flex-1 p-8">
        <h1 className="text-display">Nothing to put beside each other yet</h1>
        <p className="mt-2">Tick two or three batches in the log.</p>
        <ToLog />
      </div>
    )
  }
  if (!found.data) return <div className="tray flex-1" aria-busy="true" />
  return <Rows beside={found.data} />
}

function ToLog() {
  return (
    <Link className="inline-flex min-h-9 items-center font-[640] text-rim underline" to="/log">
      Go to the log
    </Link>
  )
}

function Rows({ beside }: { beside: Beside }) {
  return (
    <div className="tray flex flex-1 flex-col gap-3 px-6 pt-3 pb-4 max-phone:px-4">
      <header className="flex flex-wrap items-center gap-3">
        <h1 className="mr-auto text-display leading-tight">{beside.sentence}</h1>
        <ToLog />
        <Button className="no-print" onClick={() => window.print()}>
          Print
        </Button>
      </header>
      <div className="overflow-x-auto">
        <table className="w-full min-w-[640px] border-collapse text-left">
          <thead>
            <tr className="border-b-2 border-line2 align-bottom">
              <th scope="col" className="w-56 py-1.5">
                <span className="sr-only">What</span>
              </th>
              {beside.batches.map((own) => (
                <th key={own.key} scope="col" className="px-3 py-1.5">
                  <Link className="font-head text-lead text-rim underline" to={`/log/${own.key}`}>
                    {own.name}
                  </Link>
                  <span className="block text-note font-[450] text-ink2">{dayOf(own.at)}</span>
                </th>
              ))}
            </tr>
          </thead>
          {GROUPS.map(([group, words]) => (
            <tbody key={group}>
              <tr>
                <th
                  scope="colgroup"
                  colSpan={beside.batches.length + 1}
                  className="pt-3 font-head text-title"
                >
                  {words}
                </th>
              </tr>
              {beside.rows
                .filter((row) => row.group === group)
                .map((row) => (
                  <Row key={row.name} row={row} />
                ))}
            </tbody>
          ))}
        </table>
      </div>
    </div>
  )
}

/** A row; one that differs is heavier, has a bar at its side, and says so. */
function Row({ row }: { row: BesideRow }) {
  return (
    <tr className="border-b border-line align-top">
      <th
        scope="row"
        className={`border-l-4 py-1 pl-2 ${row.differs ? 'border-rim font-[640]' : 'border-transparent font-[450] text-ink2'}`}
      >
        {row.name}
        {row.differs && <span className="text-small font-[450] text-ink2"> differs</span>}
      </th>
      {row.texts.map((text, at) => (
        <td key={at} className={`px-3 py-1 ${row.differs ? 'font-[640]' : 'text-ink2'}`}>
          {text}
        </td>
      ))}
    </tr>
  )
}
