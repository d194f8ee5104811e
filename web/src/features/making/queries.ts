import { asking, useQuestion } from '../../api/ask'
import type { FormulaDocument } from '../../api/client'

/** Every school the formula can be made by, worked out for it. */
export function useMethods(document: FormulaDocument, on: boolean) {
  return useQuestion(asking('post', '/api/methods', { body: document }), on)
}
