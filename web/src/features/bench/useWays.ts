import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { useEpoch } from '../../api/epoch'
import { answer, api, OfflineError, ProblemError } from '../../api/client'
import type { FormulaDocument } from '../../api/client'

/** The keys that try a way. */
export const LETTERS = ['A', 'B', 'C', 'D', 'E'] as const
/** Longer than this and the page says that it is looking. */
const SAY_AFTER_MS = 1000

/** The smallest ways into the window; those of the last question stay until the next are there. */
export function useWays(document: FormulaDocument, enabled: boolean) {
  const epoch = useEpoch()
  const query = useQuery({
    queryKey: ['balance', epoch, JSON.stringify(document)],
    queryFn: ({ signal }) => answer(api.POST('/api/balance', { body: document, signal })),
    staleTime: Infinity,
    gcTime: 60_000,
    enabled,
    retry: (_count, error) => error instanceof OfflineError,
    retryDelay: 1500,
  })
  const [slow, setSlow] = useState(false)
  const waiting = enabled && query.isFetching && !query.data
  useEffect(() => {
    if (!waiting) return
    const timer = window.setTimeout(() => setSlow(true), SAY_AFTER_MS)
    return () => {
      window.clearTimeout(timer)
      setSlow(false)
    }
  }, [waiting])
  const problem = query.error instanceof ProblemError ? query.error.problem : undefined
  const faults = problem?.errors ?? []
  return {
    found: enabled ? query.data : undefined,
    looking: waiting && slow,
    wrong: enabled && problem ? sentence(faults[0]?.message ?? problem.detail) : null,
  }
}

function sentence(words: string): string {
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}.`
}

/** What is looked at: pointed at while the hand is there, tried until it is used or put back. */
export function useTrying(key: string) {
  const [state, setState] = useState<{ key: string; tried: number | null; pointed: number | null }>({
    key,
    tried: null,
    pointed: null,
  })
  // Another question, other ways: nothing is tried any more.
  const now = state.key === key ? state : { key, tried: null, pointed: null }
  return {
    tried: now.tried,
    shown: now.pointed ?? now.tried,
    point: (pointed: number | null) => {
      if (now.pointed !== pointed) setState({ ...now, pointed })
    },
    tryOut: (tried: number | null) => setState({ key, tried, pointed: null }),
  }
}
