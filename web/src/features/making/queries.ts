import { answer, api } from '../../api/client'
import type { FormulaDocument } from '../../api/client'
import { useQuestion } from '../../lib/question'

/** Every school the formula can be made by, worked out for it. */
export function useMethods(document: FormulaDocument, on: boolean) {
  return useQuestion(
    'methods',
    document,
    (signal) => answer(api.POST('/api/methods', { body: document, signal })),
    on,
  )
}
