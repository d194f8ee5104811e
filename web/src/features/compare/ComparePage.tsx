import { Link, useSearchParams } from 'react-router'
import { asking, useAllKept, useQuestion } from '../../api/ask'
import type { Asked } from '../../api/ask'
import type { Component, Comparison } from '../../api/client'
import { CompareMap } from './CompareMap'
import { CompareTable } from './CompareTable'
import { useTitle } from '../../lib/hooks'

/** "id" is the newest version of a formula, "id@3" its third. */
function read(address: string): Asked<Component> {
  const [id = '', revision] = address.split('@')
  return revision
    ? asking('get', '/api/components/{id}/revisions/{revision}', {
        params: { path: { id, revision: Number(revision) } },
      })
    : asking('get', '/api/components/{id}', { params: { path: { id } } })
}

/** The document with the version it is, when one was named. */
function titled(component: Component, address: string) {
  const name = component.document.name ?? ''
  return {
    ...component.document,
    name: address.includes('@') ? `${name}, version ${component.revision}` : name,
  }
}

/** Two or three formulas or versions side by side, what differs marked. */
export function ComparePage() {
  const [asked] = useSearchParams()
  useTitle('Side by side')
  const addresses = (asked.get('ids') ?? '').split(',').filter(Boolean)
  const components = useAllKept(addresses.map(read))
  const documents = components.flatMap((each, k) =>
    each.data ? [titled(each.data, addresses[k] ?? '')] : [],
  )
  const comparison = useQuestion(
    asking('post', '/api/compare', { body: { documents } }),
    addresses.length > 1 && documents.length === addresses.length,
  )
  const failed = components.find((each) => each.error)?.error?.message ?? comparison.wrong
  if (addresses.length < 2 || failed) {
    return (
      <div className="tray flex-1 p-8">
        <h1 className={`text-display ${failed ? 'text-hot' : ''}`}>
          {failed ? 'These cannot be compared' : 'Nothing to compare yet'}
        </h1>
        <p className="mt-2">{failed ? failed : 'Tick two or three formulas in the list.'}</p>
        <Link className="mt-4 inline-block font-[640] text-rim underline" to="/formulas">
          Go to the formulas
        </Link>
      </div>
    )
  }
  if (!comparison.found) return <div className="tray flex-1" aria-busy="true" />
  return <Compared comparison={comparison.found} addresses={addresses} />
}

function Compared({ comparison, addresses }: { comparison: Comparison; addresses: string[] }) {
  return (
    <div className="tray flex flex-1 flex-col gap-4 px-6 pt-4 pb-5 max-phone:px-4">
      <h1 className="text-display leading-tight">{comparison.sentence}</h1>
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-8 max-tablet:grid-cols-1">
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
                    <span key={warning.code} className="block text-note text-hot">
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
