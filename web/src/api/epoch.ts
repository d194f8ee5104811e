import { useSyncExternalStore } from 'react'

/**
 * The kitchen's epoch: it moves with every save of anybody, and comes with every answer. Whatever is worked out from
 * the kitchen's file carries it in its key, so that nothing stays on the screen that a save has made untrue.
 */

export const EPOCH_HEADER = 'kitchen-epoch'

interface Epoch {
  begun: number
  saves: number
}

let epoch: Epoch = { begun: 0, saves: 0 }
const ears = new Set<() => void>()

function read(text: string): Epoch | null {
  const match = /^(\d+)-(\d+)$/.exec(text)
  return match ? { begun: Number(match[1]), saves: Number(match[2]) } : null
}

/** Takes the epoch of an answer; answers may overtake each other, the epoch never goes back. */
export function noteEpoch(text: string | null) {
  const next = text === null ? null : read(text)
  if (!next) return
  const later = next.begun > epoch.begun || (next.begun === epoch.begun && next.saves > epoch.saves)
  if (!later) return
  epoch = next
  for (const hear of ears) hear()
}

export function currentEpoch(): Epoch {
  return epoch
}

/** The epoch as part of a key. */
export function epochWord(now: Epoch): string {
  return `${now.begun}-${now.saves}`
}

export function onEpoch(hear: () => void): () => void {
  ears.add(hear)
  return () => void ears.delete(hear)
}

export function useEpoch(): string {
  return epochWord(useSyncExternalStore(onEpoch, currentEpoch))
}
