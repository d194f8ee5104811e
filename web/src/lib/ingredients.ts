import { asking, useKept } from '../api/ask'

/** Ingredients that answer what was typed, best first; the whole shelf for nothing typed. */
export function useIngredients(search = '', archived = false) {
  const asked = asking('get', '/api/ingredients', { params: { query: { search, archived } } })
  return useKept(asked, { stay: true })
}
