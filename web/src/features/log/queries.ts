import { useMutation } from '@tanstack/react-query'
import { asking, useKept } from '../../api/ask'
import { answer, api } from '../../api/client'
import type { BatchAsk, BatchEvent, BatchNow, LogRead, NewBatchEvent, Pictures } from '../../api/client'
import type { operations } from '../../api/schema'
import { attempt } from '../../desk/attempt'
import type { First } from '../../desk/attempt'
import { newId } from '../../desk/tabs'

export type LogQuery = NonNullable<operations['read_log']['parameters']['query']>

/** Batches of the log, the last made first. */
export function useLog(query: LogQuery) {
  return useKept(asking('get', '/api/log', { params: { query } }), { stay: true })
}

/** What there is in the log to look for. */
export function useLogCounts() {
  return useKept(asking('get', '/api/log/counts'))
}

/** Batches beside each other. */
export function useBeside(keys: readonly string[]) {
  return useKept(asking('get', '/api/log/beside', { params: { query: { keys: keys.join(',') } } }), {
    on: keys.length > 1,
  })
}

export function useLogImport() {
  return useMutation<LogRead, Error, { kind: 'csv' | 'json'; text: string; take: boolean }>({
    mutationFn: (body) =>
      attempt(['log', body], (header) => answer(api.POST('/api/log/import', { params: { header }, body }))),
  })
}

/** Says of a batch what is not said while it is made; the same again, where no answer came, is said once. */
export function sayOf(batch: string, ...said: BatchEvent[]): Promise<BatchNow> {
  return attempt(['said of', batch, said], (header, first) => {
    const body = { events: eventsOf(said, first, first.at) }
    return answer(api.POST('/api/batches/{id}/events', { params: { path: { id: batch }, header }, body }))
  })
}

/** Writes in a batch that was made, with what is said of it: both or neither. Made on no day that is said, it is made now. */
export function writeIn(
  batch: Omit<BatchAsk, 'made_at'>,
  madeAt: string | null,
  said: BatchEvent[],
): Promise<BatchNow> {
  return attempt(['written in', batch, madeAt, said], (header, first) => {
    const made_at = madeAt ?? first.at
    const body = { batch: { ...batch, made_at }, events: eventsOf(said, first, made_at) }
    return answer(api.POST('/api/batches/written', { params: { header }, body }))
  })
}

function eventsOf(said: BatchEvent[], first: First, at: string): NewBatchEvent[] {
  return said.map((event, place) => ({ id: `${first.id}-${place}`, at, event }))
}

/** A batch as the log shows it. */
export function useLogLine(id: string) {
  return useKept(asking('get', '/api/log/{id}', { params: { path: { id } } }))
}

export function usePictures(batch: string) {
  return useKept(asking('get', '/api/batches/{id}/pictures', { params: { path: { id: batch } } }))
}

/** Sends a picture that is ready to be kept. */
export async function sendPicture(batch: string, blob: Blob, words: string): Promise<Pictures> {
  const id = newId()
  return attempt(['picture', batch, id], (header) =>
    answer(
      api.POST('/api/batches/{id}/pictures', {
        params: { path: { id: batch }, header, query: { picture: id, words } },
        headers: { 'content-type': 'image/jpeg' },
        // The picture as it is: no JSON.
        body: blob as unknown as never,
        bodySerializer: (body: unknown) => body as Blob,
      }),
    ),
  )
}

export function takePictureAway(batch: string, picture: string): Promise<Pictures> {
  return attempt(['no picture', batch, picture], (header) =>
    answer(
      api.DELETE('/api/batches/{id}/pictures/{picture}', {
        params: { path: { id: batch, picture }, header },
      }),
    ),
  )
}
