import { area, curveMonotoneX, line } from 'd3-shape'
import { memo } from 'react'
import type { Assessment, Job, Point } from '../../api/client'
import { degrees } from '../../lib/format'
import { flags, overlap, spoonCorner, spoonPlace } from './mapPlaces'
import type { Rectangle } from './mapPlaces'
import { GUTTER } from './mapScales'
import { whileSpans } from './point'
import type { Box, MapScales } from './mapScales'

/** Words on the field keep a rim of its colour, so that a line under them does not strike them out. */
export const halo = {
  stroke: 'var(--shade)',
  strokeWidth: 5,
  strokeLinejoin: 'round',
  paintOrder: 'stroke',
} as const
/** What stands in an opening. */
const JOB_WORD: Record<Job['kind'], string> = {
  drip: 'drip',
  coat: 'coat',
  mask: 'mask',
  fill: 'fill',
  pipe: 'pipe',
  set: 'hold',
  spoon: 'spoon',
  soak: 'soak',
  whip: 'whip',
  nappe: 'coats the spoon',
}
/** Ticks this near to the handle's middle hide under it. */
const UNDER_HANDLE = 74

interface FieldProps {
  box: Box
  scales: MapScales
  answer: Assessment | undefined
  stale: boolean
  room: number
}

/** Everything that does not move with the working line. */
export const MapField = memo(function MapField({ box, scales, answer, stale, room }: FieldProps) {
  const { x, y, temperatures, upright } = scales
  const [from, to] = temperatures
  const ticks = ticksOf(temperatures)
  const points = answer?.sweep.filter((p) => p.temperature_c >= from && p.temperature_c <= to) ?? []
  const curve = line<Point>()
    .x((p) => x(p.temperature_c))
    .y((p) => y(p.on_map.value))
    .curve(curveMonotoneX)
  const band = area<Point>()
    .x((p) => x(p.temperature_c))
    .y0((p) => y(p.on_map.low))
    .y1((p) => y(p.on_map.high))
    .curve(curveMonotoneX)
  const opening = area<Point>()
    .x((p) => x(p.temperature_c))
    .y0((p) => y(p.window_on_map[0] ?? 0))
    .y1((p) => y(p.window_on_map[1] ?? 0))
    .curve(curveMonotoneX)
  const hasWindow = points.every((p) => p.outcome !== 'no_window')
  const verb = answer ? JOB_WORD[answer.job.kind] : undefined
  return (
    <g>
      <clipPath id="map-field">
        <rect x={box.left} y={box.top} width={box.right - box.left} height={box.bottom - box.top} rx={6} />
      </clipPath>
      <rect
        x={box.left}
        y={box.top}
        width={box.right - box.left}
        height={box.bottom - box.top}
        rx={6}
        fill="var(--shade)"
      />
      <g clipPath="url(#map-field)">
        {points.length > 0 && hasWindow && (
          <>
            <path d={opening(points) ?? ''} fill="var(--lit)" />
            <path d={opening(points) ?? ''} fill="none" stroke="var(--rim)" strokeWidth={2.6} />
          </>
        )}
        {answer && <PourOpening answer={answer} scales={scales} />}
        {ticks.map((t) => (
          <line
            key={t}
            x1={x(t)}
            x2={x(t)}
            y1={box.top}
            y2={box.bottom}
            stroke="var(--line2)"
            strokeOpacity={0.35}
          />
        ))}
        {(answer?.zones ?? [])
          .filter((zone) => zone.from > upright[0] && zone.from < upright[1])
          .map((zone) => (
            <line
              key={zone.word}
              x1={box.left}
              x2={box.right}
              y1={y(zone.from)}
              y2={y(zone.from)}
              stroke="var(--line2)"
              strokeDasharray="1.5 4"
            />
          ))}
        {points.length > 0 && (
          <>
            <path d={band(points) ?? ''} fill="var(--rim)" opacity={0.17} />
            {answer?.curves.map((other) => (
              <OtherCurve key={other.history} answer={answer} other={other} scales={scales} />
            ))}
            <path
              d={curve(points) ?? ''}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={3.6}
              strokeDasharray={stale ? '2 6' : undefined}
              strokeLinecap="round"
            />
          </>
        )}
      </g>
      {answer && points.length > 0 && <CurveNames answer={answer} scales={scales} box={box} />}
      {verb && hasWindow && points.length > 0 && (
        <OpeningName verb={verb} points={points} scales={scales} box={box} />
      )}
      <ZoneWords answer={answer} scales={scales} box={box} />
      {ticks.map((t) => (
        <line key={t} x1={x(t)} x2={x(t)} y1={box.bottom} y2={box.bottom + 6} stroke="var(--ink2)" />
      ))}
      {answer?.spans
        .filter((span) => span.to_c >= from && span.from_c <= to)
        .map((span) => (
          <rect
            key={span.from_c}
            x={x(Math.max(from, span.from_c))}
            y={box.bottom - 3}
            width={Math.max(2, x(Math.min(to, span.to_c)) - x(Math.max(from, span.from_c)))}
            height={8}
            rx={2}
            fill="var(--rim)"
          />
        ))}
      {answer && <ForAWhile answer={answer} scales={scales} box={box} />}
      {answer && !stale && <Crossings answer={answer} scales={scales} box={box} />}
      {room >= from && room <= to && (
        <g>
          <path d={`M${x(room)} ${box.bottom - 13}l-5 9h10z`} fill="var(--ink2)" />
          <text x={x(room) + 8} y={box.bottom - 5} fontSize={13} fill="var(--ink)" {...halo}>
            room
          </text>
        </g>
      )}
    </g>
  )
})

/** Degrees under the axis; those under the handle hide. */
export function TickWords({ box, scales, hidden }: { box: Box; scales: MapScales; hidden: number }) {
  const ticks = ticksOf(scales.temperatures)
  return ticks
    .filter((t) => Math.abs(scales.x(t) - hidden) > UNDER_HANDLE)
    .filter((t) => t === ticks.at(-1) || scales.x(ticks.at(-1) ?? 0) - scales.x(t) > 62)
    .map((t) => (
      <text
        key={t}
        x={scales.x(t)}
        y={box.bottom + 22}
        textAnchor={t === ticks.at(-1) ? 'end' : 'middle'}
        fontSize={14}
        fill="var(--ink2)"
      >
        {t === ticks.at(-1) ? `${t} °C` : t}
      </text>
    ))
}

function ticksOf([from, to]: [number, number]): number[] {
  if (to - from <= 20) return range(from, to)
  const step = to > 50 ? 10 : 5
  return range(0, to / step).map((k) => k * step)
}

/** The second opening: what is poured before it sets stands between these. */
function PourOpening({ answer, scales }: { answer: Assessment; scales: MapScales }) {
  const pour = answer.pour
  if (!pour || answer.axis !== 'yield_stress_pa') return null
  const [from, to] = scales.temperatures
  const [low, high] = [pour.window_pa[0] ?? 0, pour.window_pa[1] ?? 0]
  const top = scales.y(high)
  const bottom = scales.y(Math.max(low, scales.upright[0]))
  return (
    <g>
      {pour.spans
        .filter((span) => span.to_c > from && span.from_c < to)
        .map((span) => {
          const left = scales.x(Math.max(from, span.from_c))
          const right = scales.x(Math.min(to, span.to_c))
          return (
            <g key={span.from_c}>
              <rect
                x={left}
                y={top}
                width={Math.max(2, right - left)}
                height={bottom - top}
                fill="var(--lit)"
                fillOpacity={0.55}
                stroke="var(--rim)"
                strokeWidth={2}
                strokeDasharray="7 4"
              />
              <text
                x={right - 10}
                y={bottom - 9}
                textAnchor="end"
                fontSize={16}
                fontWeight={720}
                fill="var(--rim)"
                className="dim-lit"
              >
                pour
              </text>
            </g>
          )
        })}
      <circle
        cx={scales.x(pour.temperature_c)}
        cy={scales.y(pour.yield_stress_pa.value)}
        r={6.5}
        fill={pour.outcome === 'inside' ? 'var(--rim)' : 'var(--hot)'}
        stroke="var(--enamel)"
        strokeWidth={2.4}
      />
    </g>
  )
}

function OtherCurve({
  answer,
  other,
  scales,
}: {
  answer: Assessment
  other: Assessment['curves'][number]
  scales: MapScales
}) {
  const [from, to] = scales.temperatures
  const points = other.on_map
    .map((pa, k) => [k * answer.sweep_step_k, pa] as [number, number])
    .filter(([t]) => t >= from && t <= to)
  const path = line<[number, number]>()
    .x(([t]) => scales.x(t))
    .y(([, pa]) => scales.y(pa))
    .curve(curveMonotoneX)
  return (
    <path
      d={path(points) ?? ''}
      fill="none"
      stroke="var(--ink2)"
      strokeWidth={1.6}
      strokeDasharray="1.5 5"
      strokeLinecap="round"
    />
  )
}

/** Where it is right only for a while: the bar is hatched, and says so where there is room. */
function ForAWhile({ answer, scales, box }: { answer: Assessment; scales: MapScales; box: Box }) {
  const [from, to] = scales.temperatures
  return (
    <g>
      <pattern
        id="for-a-while"
        width={6}
        height={6}
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <rect width={6} height={6} fill="var(--rim)" />
        <rect width={3} height={6} fill="var(--enamel)" />
      </pattern>
      {whileSpans(answer)
        .filter((span) => span.to > from && span.from < to)
        .map((span) => {
          const left = scales.x(Math.max(from, span.from))
          const right = scales.x(Math.min(to, span.to))
          return (
            <g key={span.from} data-testid="for-a-while">
              <rect
                x={left}
                y={box.bottom - 4}
                width={Math.max(3, right - left)}
                height={10}
                fill="url(#for-a-while)"
                stroke="var(--rim)"
              />
              {right - left > 74 && (
                <text
                  x={(left + right) / 2}
                  y={box.bottom - 26}
                  textAnchor="middle"
                  fontSize={13}
                  fill="var(--ink)"
                  {...halo}
                >
                  for a while
                </text>
              )}
            </g>
          )
        })}
    </g>
  )
}

/** Names stand on the curves, each where its curve is furthest from the others and the field is free. */
function CurveNames({ answer, scales, box }: { answer: Assessment; scales: MapScales; box: Box }) {
  const [from, to] = scales.temperatures
  const all = [
    { words: 'this formula', pascals: answer.sweep.map((p) => p.on_map.value), strong: true },
    ...answer.curves.map((curve) => ({ words: curve.words, pascals: curve.on_map, strong: false })),
  ]
  const taken: Rectangle[] = [
    { x: box.left, y: box.top, w: 150, h: 42 },
    spoonPlace(box, spoonCorner(answer, scales, box)),
    ...flags(answer, scales, box).map((flag) => ({ x: flag.x - 4, y: flag.y - 4, w: 74, h: 32 })),
  ]
  const perPoint = (scales.x(to) - scales.x(from)) / ((to - from) / answer.sweep_step_k)
  const last = answer.sweep.length - 1
  return all.map(({ words, pascals, strong }, own) => {
    const w = words.length * 7.4
    const yAt = (curve: number[], k: number) => scales.y(curve[Math.min(last, Math.max(0, k))] ?? 1)
    const under = Array.from({ length: 5 }, (_, j) => Math.round((j * w) / 4 / perPoint))
    let best: (Rectangle & { score: number }) | null = null
    for (let share = 0.03; share < 0.86; share += 0.03) {
      const k = Math.round((from + (to - from) * share) / answer.sweep_step_k)
      const mine = under.map((j) => yAt(pascals, k + j))
      for (const y of [Math.min(...mine) - 24, Math.max(...mine) + 7]) {
        const place = { x: scales.x(k * answer.sweep_step_k), y, w, h: 17 }
        const inside = place.x + w < box.right - 4 && y > box.top + 2 && y + 17 < box.bottom - 4
        if (!inside || taken.some((other) => overlap(place, other))) continue
        const away = all.flatMap((other, at) =>
          at === own ? [] : under.map((j) => Math.abs(yAt(other.pascals, k + j) - (y + 9))),
        )
        // On a steep stretch the words stand far from most of their curve.
        const steep = Math.max(...mine) - Math.min(...mine)
        const score = Math.min(30, ...away) - steep / 3
        if (!best || score > best.score) best = { ...place, score }
      }
    }
    if (!best) return null
    taken.push(best)
    return (
      <text
        key={words}
        x={best.x}
        y={best.y + 14}
        fontSize={14}
        fontWeight={strong ? 700 : 500}
        fill={strong ? 'var(--ink)' : 'var(--ink2)'}
        {...halo}
      >
        {words}
      </text>
    )
  })
}

/** The job's name inside its opening, at the foot of the left edge, where the curve is not. */
function OpeningName({
  verb,
  points,
  scales,
  box,
}: {
  verb: string
  points: Point[]
  scales: MapScales
  box: Box
}) {
  const first = points[1] ?? points[0]
  if (!first) return null
  const [low, high] = [scales.y(first.window_on_map[0] ?? 1), scales.y(first.window_on_map[1] ?? 1)]
  const curve = scales.y(first.on_map.value)
  // At the head, the middle or the foot of the opening, wherever the curve is furthest.
  const places = [high + 20, (low + high) / 2 + 5, low - 8].map((place) =>
    Math.min(box.bottom - 8, Math.max(box.top + 60, place)),
  )
  const y = places.reduce((best, place) =>
    Math.abs(place - 5 - curve) > Math.abs(best - 5 - curve) + 1 ? place : best,
  )
  return (
    <text x={box.left + 12} y={y} fontSize={16} fontWeight={720} fill="var(--rim)" className="dim-lit">
      {verb}
    </text>
  )
}

function ZoneWords({ answer, scales, box }: { answer: Assessment | undefined; scales: MapScales; box: Box }) {
  const { y, upright } = scales
  const zones = answer?.zones ?? []
  return zones.map((zone, k) => {
    const next = zones[k + 1]?.from ?? upright[1]
    const [low, high] = [Math.max(zone.from, upright[0]), Math.min(next, upright[1])]
    if (high <= low) return null
    const [bottom, top] = [y(low), y(high)]
    if (bottom - top < 18) return null
    const middle = (bottom + top) / 2
    const both = bottom - top > 34
    return (
      <g key={zone.word}>
        {zone.from > upright[0] && (
          <line
            x1={box.left - GUTTER + 4}
            x2={box.left}
            y1={bottom}
            y2={bottom}
            stroke="var(--line2)"
            strokeDasharray="1.5 4"
          />
        )}
        <text
          x={box.left - GUTTER + 6}
          y={both ? middle : middle + 6}
          fontSize={17}
          fontWeight={680}
          fill="var(--ink)"
          style={{ fontFamily: 'var(--font-head)' }}
        >
          {zone.word}
        </text>
        {both && (
          <text x={box.left - GUTTER + 6} y={middle + 16} fontSize={12.5} fill="var(--ink2)">
            {zone.says}
          </text>
        )}
      </g>
    )
  })
}

/** A ring on the curve, a flag with the degrees. */
function Crossings({ answer, scales, box }: { answer: Assessment; scales: MapScales; box: Box }) {
  return flags(answer, scales, box).map(({ t, cx, cy, x, y, toLeft }) => (
    <g key={t}>
      <path d={`M${cx} ${cy}L${x + (toLeft ? 60 : 6)} ${y + 12}`} stroke="var(--ink)" />
      <circle cx={cx} cy={cy} r={5.5} fill="var(--enamel)" stroke="var(--ink)" strokeWidth={2.6} />
      <rect
        x={x}
        y={y}
        width={66}
        height={24}
        rx={5}
        fill="var(--lit)"
        stroke="var(--ink)"
        strokeWidth={1.4}
      />
      <text x={x + 33} y={y + 17} textAnchor="middle" fontSize={14} fontWeight={700} fill="var(--ink)">
        {degrees(Math.round(2 * t) / 2)}
      </text>
    </g>
  ))
}

function range(from: number, to: number): number[] {
  return Array.from({ length: Math.round(to - from) + 1 }, (_, k) => from + k)
}
