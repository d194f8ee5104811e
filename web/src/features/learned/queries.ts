import { asking, useKept } from '../../api/ask'
import { answer, api } from '../../api/client'
import type { KitchenLearned, LearnedOffset, LearningEvent } from '../../api/client'
import { attempt } from '../../desk/attempt'
import { newId } from '../../desk/tabs'

/** What this kitchen's own tests taught. */
export function useLearned() {
  return useKept(asking('get', '/api/learned'), { stay: true })
}

/** Every test beside what was predicted. */
export function useMeasured() {
  return useKept(asking('get', '/api/learned/measured'), { stay: true })
}

/** Tests that would teach most. */
export function useNextTests() {
  return useKept(asking('get', '/api/learned/next'), { stay: true })
}

/** How an offset came to be. */
export function useOffsetHistory(own: LearnedOffset) {
  const { of, quantity } = own
  const query = {
    quantity,
    kind: of.of === 'past' ? of.kind : of.of,
    ...(of.of === 'past' ? { key: of.key, until: of.until } : {}),
    ...(of.of === 'family' ? { key: of.family } : {}),
    ...(of.of === 'ingredient' ? { key: of.ingredient } : {}),
  }
  return useKept(asking('get', '/api/learned/history', { params: { query } }))
}

/** Decides something of what was learned. */
export function decide(event: LearningEvent): Promise<KitchenLearned> {
  const id = newId()
  return attempt(['learned', event], (header) =>
    answer(api.POST('/api/learned', { params: { header }, body: { id, event } })),
  )
}
