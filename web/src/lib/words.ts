import { asking, useFixed } from '../api/ask'
import type { Words } from '../api/client'

const NONE: Words = { shelves: [], allergens: [], origins: [], measures: [], whip: [] }

/** The words there are to choose from; nothing until they are there, and `wrong` when they cannot be read. */
export function useWords(): Words & { wrong: string | null } {
  const asked = useFixed(asking('get', '/api/words'))
  return { ...(asked.data ?? NONE), wrong: asked.error?.message ?? null }
}
