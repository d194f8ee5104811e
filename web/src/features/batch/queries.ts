import { useCallback, useEffect, useRef, useState } from 'react'
import { asking, faultWords, useKept, useWatched } from '../../api/ask'
import { answer, api, OfflineError, ProblemError } from '../../api/client'
import type { BatchAsk, BatchEvent, BatchNow } from '../../api/client'
import { onWritten } from '../../api/live'
import { attempt } from '../../desk/attempt'
import { letGo, noteRefused, onDevice, putDown } from './outbox'
import type { OnDevice } from './outbox'

/** A batch is looked at when the stream says that somebody wrote of it, and so often besides. */
const LOOK_MS = 5000
/** And what could not be sent is sent again. */
const AGAIN_MS = 2000

/** Batches, the last begun first. */
export function useBatches(running: boolean) {
  return useKept(asking('get', '/api/batches', { params: { query: { running } } }))
}

/** Begins a batch. */
export function beginBatch(ask: BatchAsk): Promise<BatchNow> {
  return attempt(['batch', ask], (header) =>
    answer(api.POST('/api/batches', { params: { header }, body: ask })),
  )
}

function send(batch: string, waiting: OnDevice[]): Promise<BatchNow> {
  const body = { events: waiting.map((own) => own.event) }
  return answer(api.POST('/api/batches/{id}/events', { params: { path: { id: batch } }, body }))
}

/** Which of the events sent a refusal is about. */
function whichOne(error: ProblemError): number {
  const field = error.problem.errors?.[0]?.field ?? ''
  return Number(/^events\.(\d+)/.exec(field)?.[1] ?? 0)
}

/** A batch as it stands in the kitchen, what is on this device besides, and how to say what happened. */
export function useBatch(id: string) {
  const look = useWatched(asking('get', '/api/batches/{id}', { params: { path: { id } } }), LOOK_MS, AGAIN_MS)
  const { refetch } = look
  const [answered, setAnswered] = useState<BatchNow | null>(null)
  const [waiting, setWaiting] = useState<OnDevice[]>(() => onDevice(id))
  const [silent, setSilent] = useState(false)
  const busy = useRef(false)

  useEffect(
    () =>
      onWritten((changed) => {
        if (changed.some((own) => own.noun === 'batch' && own.key === id)) void refetch()
      }),
    [id, refetch],
  )

  /** Sends what is on this device, in its order; what is refused stays and says why. */
  const flush = useCallback(async () => {
    if (busy.current) return
    busy.current = true
    try {
      for (;;) {
        const open = onDevice(id).filter((own) => own.refused === undefined)
        if (open.length === 0) break
        try {
          const now = await send(id, open.slice(0, 200))
          letGo(
            id,
            open.slice(0, 200).map((own) => own.event.id),
          )
          setAnswered(now)
          setSilent(false)
        } catch (error) {
          if (!(error instanceof ProblemError)) {
            setSilent(error instanceof OfflineError)
            break
          }
          const wrong = open[whichOne(error)] ?? open[0]
          if (wrong) noteRefused(id, wrong.event.id, faultWords(error) ?? error.message)
        }
      }
    } finally {
      busy.current = false
      setWaiting(onDevice(id))
      void refetch()
    }
  }, [id, refetch])

  useEffect(() => {
    void flush()
    const timer = window.setInterval(() => {
      if (onDevice(id).some((own) => own.refused === undefined)) void flush()
    }, AGAIN_MS)
    return () => window.clearInterval(timer)
  }, [id, flush])

  const say = useCallback(
    (...events: BatchEvent[]) => {
      const ids = events.map((event) => putDown(id, event).id)
      setWaiting(onDevice(id))
      void flush()
      return ids
    },
    [id, flush],
  )
  const forget = (event: string) => {
    letGo(id, [event])
    setWaiting(onDevice(id))
  }
  const newest =
    answered && answered.kept.id === id && answered.place > (look.data?.place ?? -1) ? answered : look.data
  return { now: newest, error: look.error, waiting, silent, say, forget, refetch }
}
