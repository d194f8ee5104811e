import type { Assessment } from '../../api/client'
import type { Box, MapScales } from './mapScales'

/** Where things stand on the map without standing on one another. */

export interface Rectangle {
  x: number
  y: number
  w: number
  h: number
}

export const overlap = (a: Rectangle, b: Rectangle) =>
  a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h

/** The spoon's drawing, and the room its words take beside it. */
export const SPOON = { width: 190, height: 260, words: 122 }

/** How large the spoon is drawn. */
export function scaleOfSpoon(box: Box): number {
  return Math.min(0.74, (box.bottom - box.top) / 440, (box.right - box.left) / 700)
}

/** The place the spoon and its words take in a corner. */
export function spoonPlace(box: Box, corner: 'upper right' | 'lower left'): Rectangle {
  const scale = scaleOfSpoon(box)
  const [w, h] = [SPOON.width * scale + SPOON.words, SPOON.height * scale + 12]
  return corner === 'upper right'
    ? { x: box.right - w, y: box.top, w, h }
    : { x: box.left, y: box.bottom - h, w, h }
}

/** The spoon stands in the upper right, or in the lower left where it hides less of the curve. */
export function spoonCorner(
  answer: Assessment | undefined,
  scales: MapScales,
  box: Box,
): 'upper right' | 'lower left' {
  const hidden = (corner: 'upper right' | 'lower left') =>
    (answer?.sweep ?? []).filter((p) => {
      const [x, y] = [scales.x(p.temperature_c), scales.y(p.on_map.value)]
      return x >= box.left && x <= box.right && overlap(spoonPlace(box, corner), { x, y, w: 1, h: 1 })
    }).length
  return hidden('upper right') > hidden('lower left') ? 'lower left' : 'upper right'
}

export interface Flag {
  t: number
  /** On the curve. */
  cx: number
  cy: number
  x: number
  y: number
  toLeft: boolean
}

/** Where the curve enters and leaves the opening, and where there is room to say so. */
export function flags(answer: Assessment, scales: MapScales, box: Box): Flag[] {
  const spoon = spoonPlace(box, spoonCorner(answer, scales, box))
  const [from, to] = scales.temperatures
  return answer.spans
    .flatMap((span) => [span.from_c, span.to_c])
    .filter((t) => t > 0.01 && t < hottest(answer) - 0.01 && t >= from && t <= to)
    .map((t) => {
      const [cx, cy] = [scales.x(t), scales.y(between(answer, t))]
      // Under the spoon's corner a flag stands below the curve, to the left.
      const underSpoon = overlap(spoon, { x: cx + 16, y: cy - 36, w: 66, h: 24 })
      const below = cy < box.top + 60 || underSpoon
      const toLeft = underSpoon || cx + 86 > box.right
      return { t, cx, cy, x: toLeft ? cx - 80 : cx + 16, y: below ? cy + 16 : cy - 36, toLeft }
    })
}

const hottest = (answer: Assessment) => answer.sweep.at(-1)?.temperature_c ?? 45

/** Where the drawn curve passes at a temperature between two of its points. */
function between(answer: Assessment, t: number): number {
  const k = Math.min(answer.sweep.length - 2, Math.floor(t / answer.sweep_step_k))
  const [a, b] = [answer.sweep[k], answer.sweep[k + 1]]
  if (!a || !b) return 1
  const part = (t - a.temperature_c) / answer.sweep_step_k
  const [low, high] = [a.on_map.value, b.on_map.value]
  return low * Math.pow(high / low, part)
}
