import { answer, api } from '../../api/client'
import { asking, useQuestion, useTaken } from '../../api/ask'
import type { FormulaDocument } from '../../api/client'
import { attempt } from '../../desk/attempt'
import type { Keeping } from '../../desk/useSaving'

/**
 * What a formula will do. The last good answer stays while the next is on its way, and when there is none because
 * something cannot be weighed.
 */
export function usePrediction(document: FormulaDocument) {
  const some = document.lines.length > 0
  const { before, current, faults, offline } = useQuestion(
    asking('post', '/api/predict', { body: document }),
    some,
  )
  return { answer: some ? before : undefined, current, faults, offline }
}

/** The smallest ways into the window: of this very formula, or none. */
export function useWays(document: FormulaDocument, on: boolean) {
  const ways = useQuestion(asking('post', '/api/balance', { body: document }), on)
  return { ...ways, found: ways.current ? ways.found : undefined }
}

export function useComponent(id: string, on = true) {
  return useTaken(asking('get', '/api/components/{id}', { params: { path: { id } } }), on)
}

/** All versions of a formula. */
export function revisionsOf(id: string) {
  return asking('get', '/api/components/{id}/revisions', { params: { path: { id } } })
}

export function readRevision(id: string, revision: number) {
  return answer(api.GET('/api/components/{id}/revisions/{revision}', { params: { path: { id, revision } } }))
}

/** How a formula is kept. */
export const FORMULA: Keeping<FormulaDocument> = {
  noun: 'formula',
  create: (document) =>
    attempt(['components', document], (header) =>
      answer(api.POST('/api/components', { params: { header }, body: document })),
    ),
  save: (id, document, basedOn) => {
    const body = { document, based_on_revision: basedOn }
    return attempt(['components', id, body], (header) =>
      answer(api.PUT('/api/components/{id}', { params: { path: { id }, header }, body })),
    )
  },
}
