import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, OfflineError, ProblemError } from '../../api/client'
import { useEpoch } from '../../api/epoch'
import type { Assessment, FormulaDocument } from '../../api/client'
import { attempt } from '../../desk/attempt'
import type { Keeping } from '../../desk/useSaving'

/**
 * What a formula will do. The last good answer stays while the next is on its way, and when there is
 * none because something cannot be weighed.
 */
export function usePrediction(document: FormulaDocument) {
  const body = JSON.stringify(document)
  const epoch = useEpoch()
  const [lastGood, setLastGood] = useState<Assessment>()
  const query = useQuery({
    queryKey: ['predict', epoch, body],
    queryFn: ({ signal }) => answer(api.POST('/api/predict', { body: document, signal })),
    staleTime: Infinity,
    gcTime: 60_000,
    enabled: document.lines.length > 0,
    retry: (_count, error) => error instanceof OfflineError,
    retryDelay: 1500,
  })
  if (query.data && query.data !== lastGood) setLastGood(query.data)
  const faults =
    query.error instanceof ProblemError && document.lines.length > 0 ? (query.error.problem.errors ?? []) : []
  return {
    answer: document.lines.length > 0 ? (query.data ?? lastGood) : undefined,
    /** Whether the answer belongs to this very document. */
    current: query.data !== undefined,
    faults,
    offline: query.failureReason instanceof OfflineError,
  }
}

export function useComponent(id: string, on = true) {
  return useQuery({
    enabled: on,
    queryKey: ['component', id],
    queryFn: () => answer(api.GET('/api/components/{id}', { params: { path: { id } } })),
    retry: (_count, error) => !(error instanceof ProblemError),
    // Changes of others are told at saving, not poured over work in hand.
    staleTime: Infinity,
    gcTime: 0,
  })
}

export function listRevisions(id: string) {
  return answer(api.GET('/api/components/{id}/revisions', { params: { path: { id } } }))
}

export function readRevision(id: string, revision: number) {
  return answer(api.GET('/api/components/{id}/revisions/{revision}', { params: { path: { id, revision } } }))
}

/** How a formula is kept. */
export const FORMULA: Keeping<FormulaDocument> = {
  noun: 'formula',
  create: (document) =>
    attempt(['components', document], (header) =>
      answer(api.POST('/api/components', { params: { header }, body: document })),
    ),
  save: (id, document, basedOn) => {
    const body = { document, based_on_revision: basedOn }
    return attempt(['components', id, body], (header) =>
      answer(api.PUT('/api/components/{id}', { params: { path: { id }, header }, body })),
    )
  },
}
