import { useQueries, useQuery } from '@tanstack/react-query'
import { Link, useSearchParams } from 'react-router'
import { answer, api } from '../../api/client'
import { useEpoch } from '../../api/epoch'
import type { Comparison, FormulaDocument } from '../../api/client'
import { CompareMap } from './CompareMap'
import { CompareTable } from './CompareTable'

/** "id" is the newest version of a formula, "id@3" its third. */
function readOne(address: string): Promise<FormulaDocument> {
  const [id = '', revision] = address.split('@')
  const read = revision
    ? api.GET('/api/components/{id}/revisions/{revision}', {
        params: { path: { id, revision: Number(revision) } },
      })
    : api.GET('/api/components/{id}', { params: { path: { id } } })
  return answer(read).then((component) => ({
    ...component.document,
    name: revision
      ? `${component.document.name ?? ''}, version ${component.revision}`
      : (component.document.name ?? ''),
  }))
}

/** Two or three formulas or versions side by side, what differs marked. */
export function ComparePage() {
  const [asked] = useSearchParams()
  const epoch = useEpoch()
  const addresses = (asked.get('ids') ?? '').split(',').filter(Boolean)
  const documents = useQueries({
    queries: addresses.map((address) => ({
      queryKey: ['compared', address],
      queryFn: () => readOne(address),
      staleTime: 0,
    })),
  })
  const ready = documents.length > 0 && documents.every((each) => each.data)
  const bodies = documents.map((each) => each.data).filter((each) => each !== undefined)
  const comparison = useQuery({
    queryKey: ['compare', epoch, JSON.stringify(bodies)],
    queryFn: () => answer(api.POST('/api/compare', { body: { documents: bodies } })),
    enabled: ready,
  })
  const failed = documents.find((each) => each.error)?.error ?? comparison.error
  if (addresses.length < 2 || failed) {
    return (
      <div className="tray flex-1 p-8">
        <h1 className={`text-[30px] ${failed ? 'text-hot' : ''}`}>
          {failed ? 'These cannot be compared' : 'Nothing to compare yet'}
        </h1>
        <p className="mt-2">{failed ? failed.message : 'Tick two or three formulas in the list.'}</p>
        <Link className="mt-4 inline-block font-[640] text-rim underline" to="/formulas">
          Go to the formulas
        </Link>
      </div>
    )
  }
  if (!comparison.data) return <div className="tray flex-1" aria-busy="true" />
  return <Compared comparison={comparison.data} addresses={addresses} />
}

function Compared({ comparison, addresses }: { comparison: Comparison; addresses: string[] }) {
  return (
    <div className="tray flex flex-1 flex-col gap-4 px-6 pt-4 pb-5 max-[760px]:px-4">
      <h1 className="text-[27px] leading-tight">{comparison.sentence}</h1>
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-8 max-[1000px]:grid-cols-1">
        <CompareTable comparison={comparison} addresses={addresses} />
        <div className="flex flex-col gap-3">
          {comparison.axis ? (
            <CompareMap comparison={comparison} />
          ) : (
            <p className="text-ink2">
              Their maps count different things (stiffness and viscosity), so they are not drawn over one
              another.
            </p>
          )}
          <ul className="flex flex-col gap-2">
            {comparison.columns.map((column, k) => (
              <li key={addresses[k]} className="border-t border-line pt-2">
                <b>{column.name || `Formula ${k + 1}`}</b>: {lowered(column.at.headline)}.{' '}
                {column.span_sentence}
                {column.warnings
                  .filter((warning) => warning.severity !== 'note')
                  .map((warning) => (
                    <span key={warning.code} className="block text-[14px] text-hot">
                      {warning.cause}
                    </span>
                  ))}
              </li>
            ))}
          </ul>
        </div>
      </div>
    </div>
  )
}

/** A sentence as the second half of another. */
function lowered(words: string): string {
  return words.charAt(0).toLowerCase() + words.slice(1)
}
