import { heard, OfflineError, ProblemError } from './client'
import type { PlanAsk, PlanProgress, PlanReply, Problem } from './client'
import { DEVICE_HEADER, deviceName } from './device'
import { EPOCH_HEADER, noteEpoch } from './epoch'
import { eventOf } from './events'

/** What is told while a plan is looked for: events of a stream (text/event-stream) that ends with the last plan. */
export interface PlanEars {
  onProgress: (progress: PlanProgress) => void
  onPlan: (reply: PlanReply) => void
}

/** Asks for a plan and hears what is told on the way; to stop looking, abort. */
export async function planStream(ask: PlanAsk, ears: PlanEars, signal: AbortSignal): Promise<PlanReply> {
  return heard(listen(ask, ears, signal))
}

async function listen(ask: PlanAsk, ears: PlanEars, signal: AbortSignal): Promise<PlanReply> {
  const response = await fetch(`${window.location.origin}/api/plan`, {
    method: 'POST',
    signal,
    headers: {
      'content-type': 'application/json',
      accept: 'text/event-stream',
      [DEVICE_HEADER]: encodeURIComponent(deviceName()),
    },
    body: JSON.stringify(ask),
  })
  noteEpoch(response.headers.get(EPOCH_HEADER))
  if (!response.ok) {
    const told: unknown = await response.json().catch(() => null)
    if (typeof told === 'object' && told !== null && 'code' in told) throw new ProblemError(told as Problem)
    throw new OfflineError()
  }
  if (!response.body) throw new OfflineError()
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader()
  let text = ''
  let last: PlanReply | null = null
  for (;;) {
    const { done, value } = await reader.read()
    text += value ?? ''
    const events = text.split('\n\n')
    text = events.pop() ?? ''
    for (const event of events) {
      const told = eventOf(event)
      if (!told) continue
      if (told.name === 'progress') ears.onProgress(told.data as PlanProgress)
      if (told.name === 'plan') ears.onPlan(told.data as PlanReply)
      if (told.name === 'done') last = told.data as PlanReply
      if (told.name === 'refused') throw new ProblemError(told.data as Problem)
    }
    if (done) break
  }
  if (!last) throw new OfflineError()
  return last
}
