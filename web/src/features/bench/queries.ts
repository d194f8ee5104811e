import { asking, useQuestion, useTaken } from '../../api/ask'
import type { FormulaDocument } from '../../api/client'
import { keptAt } from '../../desk/keeping'

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

/** The same by the book alone, whatever this kitchen has learned. */
export function useByTheBook(document: FormulaDocument, on: boolean) {
  const by = useQuestion(
    asking('post', '/api/predict', { params: { query: { book: true } }, body: document }),
    on && document.lines.length > 0,
  )
  return on ? by.before : undefined
}

/** The smallest ways into the window: of this very formula, or none. */
export function useWays(document: FormulaDocument, on: boolean) {
  const ways = useQuestion(asking('post', '/api/balance', { body: document }), on)
  return { ...ways, found: ways.current ? ways.found : undefined }
}

export function useComponent(id: string, on = true) {
  return useTaken(asking('get', '/api/components/{id}', { params: { path: { id } } }), on)
}

/** How a formula is kept. */
export const FORMULA = keptAt<FormulaDocument>('formula', '/api/components')
