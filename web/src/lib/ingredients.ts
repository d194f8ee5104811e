import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { answer, api } from '../api/client'

/** Ingredients that answer what was typed, best first; the whole shelf for nothing typed. */
export function useIngredients(search = '', archived = false) {
  return useQuery({
    queryKey: ['ingredients', search, archived],
    queryFn: ({ signal }) =>
      answer(api.GET('/api/ingredients', { params: { query: { search, archived } }, signal })),
    staleTime: 60_000,
    placeholderData: keepPreviousData,
  })
}
