import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { OfflineError, ProblemError } from '../api/client'
import { useEpoch } from '../api/epoch'

/** The first fault in words, as a sentence. */
export function faultWords(error: unknown): string | null {
  if (!(error instanceof ProblemError)) return error instanceof Error ? error.message : null
  const words = error.problem.errors?.[0]?.message ?? error.problem.detail
  const first = words.charAt(0).toUpperCase() + words.slice(1)
  return /[.!?]$/.test(first) ? first : `${first}.`
}

/** A question to the server that keeps nothing: the last answer stays until the next is there. */
export function useQuestion<T>(
  key: string,
  body: unknown,
  ask: (signal: AbortSignal) => Promise<T>,
  on = true,
) {
  const epoch = useEpoch()
  const query = useQuery<T>({
    queryKey: [key, epoch, JSON.stringify(body)],
    queryFn: ({ signal }) => ask(signal),
    staleTime: Infinity,
    gcTime: 60_000,
    enabled: on,
    placeholderData: keepPreviousData,
    retry: (_count, error) => error instanceof OfflineError,
    retryDelay: 1500,
  })
  return {
    found: on && !query.isError ? query.data : undefined,
    /** Whether the answer belongs to this very question. */
    current: query.isSuccess && !query.isPlaceholderData,
    waiting: on && query.isFetching,
    wrong: on && query.isError ? faultWords(query.error) : null,
    offline: query.failureReason instanceof OfflineError,
  }
}
