import { useMutation } from '@tanstack/react-query'
import { asking, useKept } from '../../api/ask'
import { answer, api } from '../../api/client'
import { attempt } from '../../desk/attempt'
import type { IngredientDocument, KitchenValues, Label } from '../../api/client'

export function useIngredient(key: string | undefined) {
  const asked = asking('get', '/api/ingredients/{key}', { params: { path: { key: key ?? '' } } })
  return useKept(asked, { on: key !== undefined })
}

/** Saves what the kitchen says of an ingredient. */
export function saveValues(key: string, values: KitchenValues) {
  return attempt(['values', key, values], (header) =>
    answer(api.PUT('/api/ingredients/{key}/kitchen', { params: { path: { key }, header }, body: values })),
  )
}

export function useSaveValues(key: string) {
  return useMutation({
    mutationFn: (values: KitchenValues) => saveValues(key, values),
  })
}

/** Saves an own ingredient: a new one at revision 0, else on top of the revision it was read at. */
export function useSaveIngredient() {
  return useMutation({
    mutationFn: ({ document, revision }: { document: IngredientDocument; revision: number }) =>
      attempt(['ingredient', document, revision], (header) =>
        revision === 0
          ? answer(api.POST('/api/ingredients', { params: { header }, body: document }))
          : answer(
              api.PUT('/api/ingredients/{key}', {
                params: { path: { key: document.key }, header },
                body: { document, based_on_revision: revision },
              }),
            ),
      ),
  })
}

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
