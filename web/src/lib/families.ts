import { asking, useFixed } from '../api/ask'
import type { Family, FamilyEntry } from '../api/client'

/** All families with their jobs and starting formulas. They do not change while the program runs. */
export function useFamilies() {
  return useFixed(asking('get', '/api/families'))
}

export function useFamily(family: Family): FamilyEntry | undefined {
  return useFamilies().data?.find((each) => each.family === family)
}
