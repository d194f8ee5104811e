import { useState } from 'react'
import type { BatchArrival } from '../../api/client'
import { degrees } from '../../lib/format'
import type { Rings } from './useRing'

/**
 * The bell before something is as warm as its step wants it: once rung for, it rings until it was heard, wherever the
 * temperature goes. What is there from the start is not rung for.
 */
export function useBell(step: string | undefined, arrival: BatchArrival | null, now: number) {
  const [rung, setRung] = useState<{ bell: Rings; heard: boolean } | null>(null)
  const id = step === undefined ? null : `warmth.${step}`
  const likely = arrival?.min[1] ?? 0
  const at = (min: number) => Date.parse(arrival?.since ?? '') + 60_000 * min
  const comes =
    id !== null && arrival?.ring_min != null && likely > 0
      ? { likely: at(likely), rings: at(arrival.ring_min), to: degrees(arrival.to_c) }
      : null
  if (id !== null && comes && now >= comes.rings && rung?.bell.id !== id) {
    const bell = { id, name: `Near ${comes.to}: look at it`, rings: new Date(comes.rings).toISOString() }
    setRung({ bell, heard: false })
  }
  return {
    /** When it is likely there, ms; none where that is not known, or it is there. */
    comes,
    bell: rung !== null && rung.bell.id === id && !rung.heard ? rung.bell : null,
    heard: () => setRung(rung && { ...rung, heard: true }),
  }
}
