import { asking } from '../api/ask'
import type { Asked } from '../api/ask'
import { answer, api } from '../api/client'
import type { Version } from '../api/client'
import { attempt } from './attempt'
import type { Noun } from './drafts'

/** How a noun is kept, and where its versions are. */
export interface Keeping<D> {
  noun: Noun
  create: (document: D) => Promise<{ id: string; revision: number }>
  save: (id: string, document: D, basedOn: number) => Promise<{ id: string; revision: number }>
  versions: (id: string) => Asked<Version[]>
  read: (id: string, revision: number) => Promise<{ document: D; revision: number }>
  /** What to do when something new has the key of what is there already. */
  taken: string
}

type Path = '/api/components' | '/api/orders' | '/api/ingredients' | '/api/rooms' | '/api/plans'

/** A noun with the routes every kept noun has: its document is what its path takes. */
export function keptAt<D extends object>(noun: Noun, path: Path): Keeping<D> {
  // The routes of all nouns have one form; the type of one stands for all, and only the document differs.
  const at = path as '/api/components'
  const sent = (document: D) => document as never
  const got = (kept: { id: string; revision: number; document: unknown }) => ({
    ...kept,
    document: kept.document as D,
  })
  return {
    noun,
    create: (document) =>
      attempt([path, document], (header) =>
        answer(api.POST(at, { params: { header }, body: sent(document) })),
      ),
    save: (id, document, basedOn) => {
      const body = { document: sent(document), based_on_revision: basedOn }
      return attempt([path, id, body], (header) =>
        answer(api.PUT(`${at}/{id}`, { params: { path: { id }, header }, body })),
      )
    },
    versions: (id) => asking('get', `${at}/{id}/revisions`, { params: { path: { id } } }),
    read: (id, revision) =>
      answer(api.GET(`${at}/{id}/revisions/{revision}`, { params: { path: { id, revision } } })).then(got),
    taken: `there is one by this name already: give your ${noun} another name`,
  }
}
