import { curveMonotoneX, line } from 'd3-shape'
import type { Assessment } from '../../api/client'
import { halo } from './MapField'
import { overlap, spoonCorner, spoonPlace } from './mapPlaces'
import type { Box, MapScales } from './mapScales'

interface WayCurveProps {
  way: { words: string; onMap: number[] }
  answer: Assessment
  scales: MapScales
  box: Box
}

/** About how wide a character of the name is. */
const CHARACTER = 7.3

/** What the formula would be with the way that is looked at: dashed, named where it stands apart. */
export function WayCurve({ way, answer, scales, box }: WayCurveProps) {
  const [from, to] = scales.temperatures
  const step = answer.sweep_step_k
  const points = way.onMap
    .map((value, k) => [k * step, value] as [number, number])
    .filter(([t]) => t >= from && t <= to)
  const moved = points.some(
    ([, value], k) => Math.abs(Math.log(value / (answer.sweep[k]?.on_map.value ?? 1))) > 0.01,
  )
  if (!moved) return null
  const path = line<[number, number]>()
    .x(([t]) => scales.x(t))
    .y(([, value]) => scales.y(value))
    .curve(curveMonotoneX)
  const width = way.words.length * CHARACTER
  // Named where it stands furthest from the formula, clear of the spoon; below when it is the looser.
  const spoon = spoonPlace(box, spoonCorner(answer, scales, box))
  let best: { x: number; y: number; apart: number } | null = null
  for (const [t, value] of points) {
    const now = answer.sweep[Math.round(t / step)]?.on_map.value ?? value
    const [x, y] = [scales.x(t), scales.y(value) + (value < now ? 20 : -8)]
    const place = { x, y: y - 14, w: width, h: 17 }
    const inside = x > box.left + 8 && x + width < box.right - 8 && y > box.top + 60 && y < box.bottom - 6
    const apart = Math.abs(scales.y(now) - scales.y(value))
    if (inside && !overlap(place, spoon) && (!best || apart > best.apart)) best = { x, y, apart }
  }
  return (
    <g>
      <clipPath id="way-field">
        <rect x={box.left} y={box.top} width={box.right - box.left} height={box.bottom - box.top} rx={6} />
      </clipPath>
      <path
        d={path(points) ?? ''}
        clipPath="url(#way-field)"
        fill="none"
        stroke="var(--rim)"
        strokeWidth={2.6}
        strokeDasharray="7 5"
      />
      {best && (
        <text x={best.x} y={best.y} fontSize={14} fontWeight={680} fill="var(--rim)" {...halo}>
          {way.words}
        </text>
      )}
    </g>
  )
}
