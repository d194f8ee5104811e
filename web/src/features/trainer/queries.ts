import { asking, useFixed } from '../../api/ask'
import { answer, api } from '../../api/client'
import type { TrainerAsked, TrainerJudged, TrainerKind, TrainerScore } from '../../api/client'
import { attempt } from '../../desk/attempt'
import { newId } from '../../desk/tabs'

/** A question for a person: the same for the same dice. */
export function useTrainer(who: string, seed: number, kind: TrainerKind | null) {
  const query = { who, seed, ...(kind ? { kind } : {}) }
  return useFixed(asking('get', '/api/trainer/question', { params: { query } }))
}

/** Answers a question as it was shown. */
export function answerOf(who: string, { ask, seal }: TrainerAsked, said: number): Promise<TrainerJudged> {
  const id = newId()
  return attempt(['trainer', who, seal, said], (header) =>
    answer(api.POST('/api/trainer/answers', { params: { header }, body: { who, id, ask, seal, said } })),
  )
}

/** A person's score begins anew. */
export function beginAnew(who: string): Promise<TrainerScore> {
  const id = newId()
  return attempt(['trainer anew', who, id], (header) =>
    answer(api.POST('/api/trainer/score', { params: { header }, body: { who, id } })),
  )
}
