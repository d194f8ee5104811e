import { useMutation } from '@tanstack/react-query'
import { asking, useKept } from '../../api/ask'
import { answer, api } from '../../api/client'
import { attempt } from '../../desk/attempt'
import { keptAt } from '../../desk/keeping'
import type { IngredientDocument, KitchenValues, Label } from '../../api/client'

export function useIngredient(key: string | undefined) {
  const asked = asking('get', '/api/ingredients/{id}', { params: { path: { id: key ?? '' } } })
  return useKept(asked, { on: key !== undefined })
}

/** Saves what the kitchen says of an ingredient. */
export function saveValues(key: string, values: KitchenValues) {
  return attempt(['values', key, values], (header) =>
    answer(api.PUT('/api/ingredients/{id}/kitchen', { params: { path: { id: key }, header }, body: values })),
  )
}

export function useSaveValues(key: string) {
  return useMutation({
    mutationFn: (values: KitchenValues) => saveValues(key, values),
  })
}

/** How an ingredient of the kitchen's own is kept. */
export const INGREDIENT = keptAt<IngredientDocument>('ingredient', '/api/ingredients')

export function infer(label: Label) {
  return answer(api.POST('/api/ingredients/infer', { body: label }))
}

export function useImport() {
  return useMutation({
    mutationFn: (file: { kind: 'csv' | 'json'; text: string; take: boolean }) =>
      attempt(['import', file], (header) =>
        answer(api.POST('/api/ingredients/import', { params: { header }, body: file })),
      ),
  })
}
