import { useMutation } from '@tanstack/react-query'
import { asking, useKept, useKnown, useWatched } from '../../api/ask'
import { answer, api } from '../../api/client'
import { attempt } from '../../desk/attempt'
import type { Kitchen } from '../../api/client'

const KITCHEN = asking('get', '/api/kitchen')

export function useKitchen() {
  return useKept(KITCHEN)
}

export function useHealth() {
  return useWatched(asking('get', '/api/health'), 15_000, 2000)
}

/** Saves the kitchen; shows the change at once and takes it back when the save fails. */
export function useSaveKitchen() {
  const known = useKnown(KITCHEN)
  return useMutation({
    mutationFn: (kitchen: Kitchen) =>
      attempt(['kitchen', kitchen], (header) =>
        answer(api.PUT('/api/kitchen', { params: { header }, body: kitchen })),
      ),
    onMutate: (kitchen) => {
      const before = known.read()
      known.write(kitchen)
      return { before }
    },
    onSuccess: (saved) => known.write(saved),
    onError: (_error, _kitchen, context) => {
      known.write(context?.before)
      void known.forget()
    },
  })
}
