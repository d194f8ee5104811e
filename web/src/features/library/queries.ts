import { useQuery } from '@tanstack/react-query'
import { answer, api } from '../../api/client'

export function useComponents() {
  return useQuery({
    queryKey: ['components'],
    queryFn: () => answer(api.GET('/api/components')),
    staleTime: 10_000,
  })
}
