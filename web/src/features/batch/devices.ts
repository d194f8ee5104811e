import { useSyncExternalStore } from 'react'
import type { DeviceNow } from '../../api/client'
import { useShow } from '../../api/live'

/** Which of several devices of a kind this page goes by. */
const chosen = (kind: string) => `bright-spoon.${kind}`

const picked = new Map<string, string | null>()
const listeners = new Set<() => void>()

function listen(listener: () => void) {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

function remembered(kind: string): string | null {
  const own = picked.get(kind)
  if (own !== undefined) return own
  let kept: string | null = null
  try {
    kept = localStorage.getItem(chosen(kind))
  } catch {
    // Nothing is remembered here.
  }
  picked.set(kind, kept)
  return kept
}

/** Everything on this page goes by that device from now on. */
function choose(kind: string, name: string) {
  picked.set(kind, name)
  try {
    localStorage.setItem(chosen(kind), name)
  } catch {
    // It holds while this page is open.
  }
  for (const listener of listeners) listener()
}

/** The device of a kind that this page goes by, and the others there are. */
export function useDevice(kind: DeviceNow['kind']) {
  const show = useShow()
  const name = useSyncExternalStore(listen, () => remembered(kind))
  const all = (show?.devices ?? []).filter((own) => own.kind === kind)
  const own = all.find((each) => each.name === name) ?? all[0]
  return {
    device: own,
    all,
    choose: (next: string) => choose(kind, next),
  }
}

export interface ScaleNow {
  device: DeviceNow
  /** What the scale shows, g; null while it shows nothing that is now. */
  g: number | null
  steady: boolean
  /** How fast it rises, g/s. */
  rate: number
}

/** The bench scale as it stands now; null where the kitchen has none. */
export function useScale(): ScaleNow | null {
  const { device } = useDevice('scale')
  const show = useShow()
  if (!device) return null
  const g = device.state === 'live' && device.g != null ? device.g : null
  const rate = device.steady ? 0 : (show?.rates.get(device.name) ?? 0)
  return { device, g, steady: g !== null && device.steady, rate }
}
