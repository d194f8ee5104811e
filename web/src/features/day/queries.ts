import { useCallback, useEffect, useRef, useState } from 'react'
import { asking, faultWords, useFixed, useKept, useQuestion } from '../../api/ask'
import { answer, api } from '../../api/client'
import type {
  BendAsk,
  CureAsk,
  Happened,
  KitchenDocument,
  PlanAsk,
  PlanDocument,
  PlanProgress,
  PlanReply,
  Quicker,
  Report,
} from '../../api/client'
import { planStream } from '../../api/stream'
import { attempt } from '../../desk/attempt'
import { keptAt } from '../../desk/keeping'
import { newId } from '../../desk/tabs'

/** The plan that stands, how it looks, what was said of its steps. */
export function useDay() {
  return useKept(asking('get', '/api/plans'))
}

/** The pastry room, and the usual one. */
export function useRoom() {
  return useKept(asking('get', '/api/rooms'))
}

/** All methods with their steps and usual minutes. */
export function useMethods() {
  return useFixed(asking('get', '/api/methods'))
}

/** How a plan is kept, and its versions. */
export const PLAN = keptAt<PlanDocument>('plan', '/api/plans')
/** How the pastry room is kept. */
export const ROOM = keptAt<KitchenDocument>('room', '/api/rooms')
/** The keys both are kept under: there is one of each. */
export const THE_PLAN = 'day'
export const THE_ROOM = 'room'

/** Puts a plan in the place of the one that stands. */
export function keepPlan(plan: PlanDocument, basedOn: number): Promise<{ id: string; revision: number }> {
  return basedOn === 0 ? PLAN.create(plan) : PLAN.save(THE_PLAN, plan, basedOn)
}

/** Says of a step that it is begun or done, or takes that back. */
export function report(own: Report) {
  const body = { reports: [{ id: newId(), report: own }] }
  return attempt(['reports', own], (header) =>
    answer(api.POST('/api/plans/{id}/reports', { params: { path: { id: THE_PLAN }, header }, body })),
  )
}

/** What happened, steps that were to begin and did not, waits that are made shorter besides. */
export interface Happening {
  happened: Happened
  notBegun?: number[]
  also?: Quicker[]
}

/** What happened, as the planner is asked. */
export function bendAsk(plan: PlanDocument, reports: Report[], now: string, happening: Happening): BendAsk {
  const { happened, notBegun = [], also = [] } = happening
  return { plan, reports, now, happened, not_begun: notBegun, also }
}

/** Bends a plan to what happened. */
export function bend(body: BendAsk) {
  return answer(api.POST('/api/plan/bend', { body }))
}

/** What would save a day without going past a limit. */
export function useCures(ask: CureAsk) {
  return useQuestion(asking('post', '/api/plan/cures', { body: ask }))
}

/** Whether an order more fits. */
export function take(plan: PlanDocument, reports: Report[], now: string, order: string) {
  return answer(api.POST('/api/plan/take', { body: { plan, reports, now, order } }))
}

/** How likely a plan is to hold. */
export function useOdds(plan: PlanDocument, on: boolean) {
  return useQuestion(asking('post', '/api/plan/odds', { body: { plan } }), on)
}

/** What would make a wait shorter. */
export function useQuicker(plan: PlanDocument, wait: number, enough?: number) {
  const body = { plan, wait, ...(enough === undefined ? {} : { enough_min: enough }) }
  return useQuestion(asking('post', '/api/plan/quicker', { body }))
}

/** Run sheets, to be there when somebody prints. */
export function useSheets(plan: PlanDocument) {
  return useQuestion(asking('post', '/api/plan/sheets', { body: plan }))
}

export type Planning =
  | { kind: 'idle' }
  | { kind: 'looking'; progress: PlanProgress | null; best: PlanReply | null }
  | { kind: 'found'; reply: PlanReply }
  | { kind: 'refused'; words: string }

/** Looks for a plan; what is asked anew calls off what was asked before. */
export function usePlanning() {
  const [state, setState] = useState<Planning>({ kind: 'idle' })
  const running = useRef<AbortController | null>(null)
  const best = useRef<PlanReply | null>(null)
  useEffect(() => () => running.current?.abort(), [])
  const start = useCallback((ask: PlanAsk) => {
    running.current?.abort()
    const own = new AbortController()
    running.current = own
    best.current = null
    setState({ kind: 'looking', progress: null, best: null })
    const ears = {
      onProgress: (progress: PlanProgress) => {
        if (!own.signal.aborted) setState({ kind: 'looking', progress, best: best.current })
      },
      onPlan: (reply: PlanReply) => {
        if (own.signal.aborted) return
        best.current = reply
        setState((now) => ({
          kind: 'looking',
          progress: now.kind === 'looking' ? now.progress : null,
          best: reply,
        }))
      },
    }
    planStream(ask, ears, own.signal).then(
      (reply) => {
        if (!own.signal.aborted) setState({ kind: 'found', reply })
      },
      (error: unknown) => {
        if (!own.signal.aborted) {
          setState({ kind: 'refused', words: faultWords(error) ?? 'It could not be planned; try again.' })
        }
      },
    )
  }, [])
  /** Stops looking; the best so far is the plan, if there is one. */
  const stop = useCallback(() => {
    running.current?.abort()
    const found = best.current
    setState(found ? { kind: 'found', reply: { ...found, stopped: true } } : { kind: 'idle' })
  }, [])
  const clear = useCallback(() => {
    running.current?.abort()
    setState({ kind: 'idle' })
  }, [])
  return { state, start, stop, clear }
}
