import { useQueries, useQuery, useQueryClient } from '@tanstack/react-query'
import type { QueryFunction } from '@tanstack/react-query'
import createQueries from 'openapi-react-query'
import { useMemo, useState } from 'react'
import { useSettled } from '../lib/hooks'
import { api, heard, OfflineError, ProblemError } from './client'
import { currentEpoch, epochWord, useEpoch } from './epoch'

/**
 * The one way from the page to the server. What is asked is named by its route and all that is sent, which is its key
 * as well; what is worked out from the kitchen's file carries the kitchen's epoch in its key, so that no answer
 * outlives a save of anybody. Asking is called off when another question takes its place.
 */

/** A question: the route, what is sent, and how the answer is fetched. */
export interface Asked<T> {
  queryKey: readonly unknown[]
  queryFn: QueryFunction<T, never>
}

/** A question by its method, route and what is sent, typed by the server's description. */
export const asking = createQueries(api).queryOptions

/** Typing and dragging rest this long before a question goes out. */
export const SETTLE_MS = 140
/** Answers nobody looks at are forgotten after this long. */
const FORGET_MS = 60_000
const AGAIN_MS = 1500

function fetching<T>(asked: Asked<T>): QueryFunction<T> {
  // The key it reads is the one made of it here.
  const fetch = asked.queryFn as unknown as QueryFunction<T>
  return async (context) => heard(Promise.resolve(fetch(context)))
}

/** The key of a question in the kitchen as it stands; a route that is sent nothing keeps its third place empty. */
function keyAt(queryKey: readonly unknown[], epoch: string): unknown[] {
  const [method, route, sent = {}] = queryKey
  return [method, route, sent, epoch]
}

/** No answer is asked for again, a plain no is not. */
function untilAnswered(_count: number, error: unknown): boolean {
  return error instanceof OfflineError
}

/** The first fault in words, as a sentence. */
export function faultWords(error: unknown): string | null {
  if (!(error instanceof ProblemError)) return error instanceof Error ? error.message : null
  const words = error.problem.errors?.[0]?.message ?? error.problem.detail
  const first = words.charAt(0).toUpperCase() + words.slice(1)
  return /[.!?]$/.test(first) ? first : `${first}.`
}

/**
 * A question that keeps nothing: what a document will do, what could be done about it. It goes out when it has rested
 * (at once, for what follows a hand that drags); the last answer stays until the next is there.
 */
export function useQuestion<T>(asked: Asked<T>, on = true, rest = SETTLE_MS) {
  const epoch = useEpoch()
  const question = JSON.stringify(asked.queryKey)
  const rested = useSettled(question, rest)
  const key = useMemo(() => keyAt(JSON.parse(rested) as unknown[], epoch), [rested, epoch])
  const [before, setBefore] = useState<T>()
  const query = useQuery<T>({
    queryKey: key,
    queryFn: fetching(asked),
    staleTime: Infinity,
    gcTime: FORGET_MS,
    enabled: on && rested === question,
    retry: untilAnswered,
    retryDelay: AGAIN_MS,
  })
  if (query.data !== undefined && query.data !== before) setBefore(query.data)
  const problem = on && query.error instanceof ProblemError ? query.error.problem : undefined
  return {
    /** The answer; the last one until it is there, none while there cannot be one. */
    found: on && !query.isError ? (query.data ?? before) : undefined,
    /** The last answer there was, whatever became of the question. */
    before,
    /** Whether the answer belongs to this very question. */
    current: on && rested === question && query.data !== undefined,
    waiting: on && (rested !== question || query.isFetching),
    /** Why there is none, in words, and fault by fault. */
    wrong: on && query.isError ? faultWords(query.error) : null,
    faults: problem?.errors ?? [],
    offline: query.failureReason instanceof OfflineError,
  }
}

/** What stands in the kitchen's file, as it is shown. */
export interface Shown<T> {
  data: T | undefined
  error: Error | null
  isError: boolean
  /** Neither an answer yet nor a no. */
  isPending: boolean
  refetch: () => unknown
}

/**
 * What stands in the kitchen's file, to look at: read again when anybody saved. Until then, and when it cannot be read
 * again, the last answer stays; with `stay` also that of another question of the kind.
 */
export function useKept<T>(
  asked: Asked<T>,
  { on = true, stay = false } = {},
): Shown<T> & { current: boolean } {
  const epoch = useEpoch()
  const question = JSON.stringify(asked.queryKey)
  const [before, setBefore] = useState<{ question: string; data: T }>()
  const query = useQuery<T>({
    queryKey: keyAt(asked.queryKey, epoch),
    queryFn: fetching(asked),
    gcTime: FORGET_MS,
    enabled: on,
  })
  if (query.data !== undefined && (query.data !== before?.data || question !== before.question)) {
    setBefore({ question, data: query.data })
  }
  const last = before && (stay || before.question === question) ? before.data : undefined
  const { error, isError, refetch } = query
  const data = query.data ?? last
  return {
    data,
    error,
    isError,
    isPending: data === undefined && !isError,
    refetch,
    current: query.data !== undefined,
  }
}

/** The same for several at once. */
export function useAllKept<T>(asked: readonly Asked<T>[]) {
  const epoch = useEpoch()
  return useQueries({
    queries: asked.map((each) => ({
      queryKey: keyAt(each.queryKey, epoch),
      queryFn: fetching(each),
      gcTime: FORGET_MS,
    })),
  })
}

/** A document to take in hand: read once. Changes of others are told at saving, not poured over work in hand. */
export function useTaken<T>(asked: Asked<T>, on = true): Shown<T> {
  return useQuery<T>({
    queryKey: asked.queryKey,
    queryFn: fetching(asked),
    enabled: on,
    retry: (_count, error) => !(error instanceof ProblemError),
    staleTime: Infinity,
    gcTime: 0,
  })
}

/** What does not change while the program runs. */
export function useFixed<T>(asked: Asked<T>): Shown<T> {
  return useQuery<T>({ queryKey: asked.queryKey, queryFn: fetching(asked), staleTime: Infinity })
}

/** What is looked at again and again: so often while it answers, more often while it does not. */
export function useWatched<T>(asked: Asked<T>, everyMs: number, silentMs: number, on = true) {
  return useQuery<T>({
    queryKey: asked.queryKey,
    queryFn: fetching(asked),
    refetchInterval: (query) => (query.state.status === 'error' ? silentMs : everyMs),
    retry: false,
    enabled: on,
  })
}

/** Answers that are known before the server gives them: what was just written. */
export function useKnown<T>(asked: Asked<T>) {
  const client = useQueryClient()
  const key = () => keyAt(asked.queryKey, epochWord(currentEpoch()))
  return {
    read: () => client.getQueryData<T>(key()),
    write: (data: T | undefined) => void client.setQueryData<T>(key(), data),
    /** Asked again, whatever is known. */
    forget: () => client.invalidateQueries({ queryKey: key() }),
  }
}
