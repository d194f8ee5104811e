import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { answer, api } from '../../api/client'
import { attempt } from '../../desk/attempt'
import type { Kitchen } from '../../api/client'

export function useKitchen() {
  return useQuery({
    queryKey: ['kitchen'],
    queryFn: () => answer(api.GET('/api/kitchen')),
    staleTime: 60_000,
  })
}

export function useHealth() {
  return useQuery({
    queryKey: ['health'],
    queryFn: () => answer(api.GET('/api/health')),
    refetchInterval: (query) => (query.state.status === 'error' ? 2000 : 15_000),
    retry: false,
  })
}

/** Saves the kitchen; shows the change at once and takes it back when the save fails. */
export function useSaveKitchen() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (kitchen: Kitchen) =>
      attempt(['kitchen', kitchen], (header) =>
        answer(api.PUT('/api/kitchen', { params: { header }, body: kitchen })),
      ),
    onMutate: (kitchen) => {
      const before = client.getQueryData<Kitchen>(['kitchen'])
      client.setQueryData(['kitchen'], kitchen)
      return { before }
    },
    onSuccess: (saved) => client.setQueryData(['kitchen'], saved),
    onError: (_error, _kitchen, context) => {
      client.setQueryData(['kitchen'], context?.before)
      void client.invalidateQueries({ queryKey: ['kitchen'] })
    },
  })
}
