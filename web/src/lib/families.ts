import { useQuery } from '@tanstack/react-query'
import { answer, api } from '../api/client'
import type { Family, FamilyEntry } from '../api/client'

/** All families with their jobs and starting formulas. They do not change while the program runs. */
export function useFamilies() {
  return useQuery({
    queryKey: ['families'],
    queryFn: () => answer(api.GET('/api/families')),
    staleTime: Infinity,
  })
}

export function useFamily(family: Family): FamilyEntry | undefined {
  return useFamilies().data?.find((each) => each.family === family)
}
