import { asking, useWatched } from '../../api/ask'
import type { BatchArrival, BatchView, DeviceNow } from '../../api/client'
import { useShow } from '../../api/live'
import { useDevice } from './devices'

/** What the probe showed on the way is looked at so often. */
const LOOK_MS = 5000

/** The probe, what it showed on the way, and when it will be as the step wants it; by what was typed where there is no probe. */
export function useWarmth(id: string, view: BatchView) {
  const { device } = useDevice('probe')
  const probe = device?.c != null && device.state !== 'away' && device.state !== 'wrong' ? device : null
  const way = useWatched(
    asking('get', '/api/batches/{id}/warmth', {
      params: { path: { id }, query: { probe: probe?.name ?? '' } },
    }),
    LOOK_MS,
    LOOK_MS,
    probe !== null,
  )
  // Until the kitchen has said which devices there are, what was typed may be older than what a probe shows.
  const known = useShow() !== null
  // While a line is weighed, the probe is in nothing that a step wants warm.
  const atStep = known && view.step != null && !view.closed
  const arrival: BatchArrival | null = !atStep
    ? null
    : probe
      ? (way.data?.arrival ?? null)
      : (view.arrival ?? null)
  return {
    /** The probe that shows something. */
    probe: probe as (DeviceNow & { c: number }) | null,
    /** The one the page goes by, whether or not it shows anything. */
    device,
    reads: way.data?.reads ?? [],
    wanted: atStep && probe ? (way.data?.wanted_c ?? null) : null,
    arrival,
  }
}

export type WarmthNow = ReturnType<typeof useWarmth>
