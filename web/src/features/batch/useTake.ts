import { useEffect, useState } from 'react'
import type { BatchLine } from '../../api/client'
import { READS_G } from './ahead'
import type { Pour } from './usePour'

/** More than so many times what a line asks for is not taken without a key. */
const MOST_MARKS = 3

/**
 * Takes what is on the scale: at a key, as soon as it stands still; and by itself once it stands still past what the
 * line may weigh, so that the answers to that are there at once. What was undone is not taken again by itself.
 */
export function useTake(line: BatchLine, pour: Pour, put: (grams: number) => void) {
  const [asked, setAsked] = useState<number | null>(null)
  const { net, steady, some, byItself, turn, weighs } = pour
  const takes = asked === turn
  const { mark_g, to_g } = line.band
  const over = some && net !== null && line.in_g + net > to_g + READS_G && mark_g > 0
  // So much more is no pour: something else was put on the scale.
  const poured = over && line.in_g + net < MOST_MARKS * mark_g
  useEffect(() => {
    if (!some || !steady || net === null) return
    if (!takes && !(poured && weighs && !byItself.current.has(line.line))) return
    if (over) byItself.current.add(line.line)
    put(net)
  }, [takes, over, poured, some, steady, net, put, byItself, weighs, line.line])
  return {
    /** Waiting until the scale stands still. */
    takes: takes && some,
    take: () => {
      if (some && steady && net !== null) put(net)
      else setAsked(turn)
    },
  }
}
