import { area, curveMonotoneY, line } from 'd3-shape'
import { scaleLinear } from 'd3-scale'
import { Slider } from 'radix-ui'
import { useRef, useState } from 'react'
import type { Assessment, ClockAnswer } from '../../api/client'
import { degrees } from '../../lib/format'
import { useSize } from '../../lib/hooks'
import { lifted } from '../../lib/mixture'
import { minutesWords, timeWords } from './times'

interface CoolingChartProps {
  told: ClockAnswer
  answer: Assessment | undefined
  /** The time it begins: "13:05". */
  at: string
}

const LEFT = 78
const TOP = 30
const HEIGHT = 330
const FOOT = 26

interface Row {
  min: number
  usual: number
  low: number
  high: number
}

/**
 * The way down against the temperatures of the map, time running downwards: where the curve crosses an opening it is
 * right, and the hand reads off any moment.
 */
export function CoolingChart({ told, answer, at }: CoolingChartProps) {
  const frame = useRef<HTMLDivElement>(null)
  const { width } = useSize(frame)
  const [share, setShare] = useState<number | null>(null)
  const { curve, window } = told
  const last = curve.usual.length - 1
  const whole = curve.step_min * last
  const rows: Row[] = curve.usual.map((usual, k) => {
    const ends = [usual, curve.soonest[k] ?? usual, curve.latest[k] ?? usual]
    return { min: k * curve.step_min, usual, low: Math.min(...ends), high: Math.max(...ends) }
  })
  const warmest = Math.max(answer?.sweep.at(-1)?.temperature_c ?? 45, 10 * Math.ceil(told.start.c / 10))
  const coldest = Math.min(0, 5 * Math.floor(Math.min(...rows.map((row) => row.low)) / 5))
  const x = scaleLinear()
    .domain([coldest, warmest])
    .range([LEFT, Math.max(LEFT + 100, width - 10)])
  const y = scaleLinear()
    .domain([0, whole])
    .range([TOP, TOP + HEIGHT])
  const path = line<Row>()
    .x((row) => x(row.usual))
    .y((row) => y(row.min))
    .curve(curveMonotoneY)
  const band = area<Row>()
    .y((row) => y(row.min))
    .x0((row) => x(row.low))
    .x1((row) => x(row.high))
    .curve(curveMonotoneY)
  // The hand begins in the middle of the window, where there is one.
  const [from, to] = [window?.from.min, window?.to?.min]
  const first = from === undefined ? 0.5 * whole : 0.5 * (from + Math.min(whole, to ?? whole))
  const hand = share === null ? Math.min(whole, first) : share * whole
  const row = rows[Math.min(last, Math.max(0, Math.round(hand / curve.step_min)))] ?? {
    min: 0,
    usual: told.start.c,
    low: told.start.c,
    high: told.start.c,
  }
  const inside = from !== undefined && hand >= from - 1e-6 && hand <= (to ?? Infinity) + 1e-6
  const says = `${timeWords(at, hand)}: ${degrees(row.usual)}, between ${degrees(row.low)} and ${degrees(row.high)}`
  const handX = x(row.usual)
  const labelLeft = handX > LEFT + 0.6 * (width - LEFT)
  return (
    <div ref={frame} className="relative" style={{ height: TOP + HEIGHT + FOOT }}>
      {width > 0 && (
        <>
          <svg
            width={width}
            height={TOP + HEIGHT + FOOT}
            className="absolute inset-0 block"
            aria-hidden="true"
          >
            <clipPath id="clock-field">
              <rect x={LEFT} y={TOP} width={x(warmest) - LEFT} height={HEIGHT} rx={6} />
            </clipPath>
            <rect x={LEFT} y={TOP} width={x(warmest) - LEFT} height={HEIGHT} rx={6} fill="var(--shade)" />
            <g clipPath="url(#clock-field)">
              {answer?.spans.map((span) => (
                <rect
                  key={span.from_c}
                  x={x(span.from_c)}
                  y={TOP - 4}
                  width={Math.max(2, x(span.to_c) - x(span.from_c))}
                  height={HEIGHT + 8}
                  fill="var(--lit)"
                  stroke="var(--rim)"
                  strokeWidth={2}
                />
              ))}
              {hours(whole).map((min) => (
                <line
                  key={min}
                  x1={LEFT}
                  x2={x(warmest)}
                  y1={y(min)}
                  y2={y(min)}
                  stroke="var(--line2)"
                  strokeOpacity={0.35}
                />
              ))}
              <path d={band(rows) ?? ''} fill="var(--rim)" opacity={0.17} />
              <path
                d={path(rows) ?? ''}
                fill="none"
                stroke="var(--ink)"
                strokeWidth={3.4}
                strokeLinecap="round"
              />
            </g>
            {window && (
              <rect
                data-testid="clock-window"
                x={LEFT - 5}
                y={y(Math.min(whole, window.from.min))}
                width={7}
                height={Math.max(3, y(Math.min(whole, to ?? whole)) - y(Math.min(whole, window.from.min)))}
                rx={2}
                fill="var(--rim)"
              />
            )}
            {hours(whole).map((min) => (
              <text
                key={min}
                x={LEFT - 12}
                y={y(min) + 5}
                textAnchor="end"
                fontSize={14}
                fill="var(--ink2)"
                opacity={Math.abs(y(min) - y(hand)) < 20 ? 0 : 1}
              >
                {timeWords(at, min)}
              </text>
            ))}
            {ticks(coldest, warmest).map((t) => (
              <text
                key={t}
                x={x(t)}
                y={TOP - 9}
                textAnchor={t === warmest ? 'end' : 'middle'}
                fontSize={14}
                fill="var(--ink2)"
              >
                {t < 0 ? `−${-t}` : t}
                {t === warmest ? ' °C' : ''}
              </text>
            ))}
            <line
              x1={LEFT}
              x2={x(warmest)}
              y1={y(hand)}
              y2={y(hand)}
              stroke={inside ? 'var(--rim)' : 'var(--ink2)'}
              strokeWidth={2.4}
            />
            <circle
              cx={handX}
              cy={y(hand)}
              r={8}
              fill={answer ? lifted(answer.tint) : 'var(--line2)'}
              stroke="var(--enamel)"
              strokeWidth={3}
            />
            <circle cx={handX} cy={y(hand)} r={9.6} fill="none" stroke="var(--ink)" strokeWidth={1.2} />
            <text
              x={handX + (labelLeft ? -16 : 16)}
              y={y(hand) + (y(hand) < TOP + 34 ? 24 : -10)}
              textAnchor={labelLeft ? 'end' : 'start'}
              fontSize={16}
              fontWeight={700}
              fill="var(--ink)"
              stroke="var(--enamel)"
              strokeWidth={4}
              paintOrder="stroke"
            >
              {degrees(row.usual)}
            </text>
            <text x={LEFT + 2} y={TOP + HEIGHT + 19} fontSize={13} fill="var(--ink2)">
              {minutesWords(whole)} from top to bottom; the pale band is how much faster or slower heat may go
            </text>
          </svg>
          <Slider.Root
            className="absolute touch-pan-x select-none"
            orientation="vertical"
            inverted
            style={{ left: 0, width, top: TOP, height: HEIGHT }}
            min={0}
            max={1}
            step={1 / last}
            value={[Math.min(1, hand / whole)]}
            onValueChange={([next]) => next !== undefined && setShare(next)}
          >
            <Slider.Track className="absolute inset-0 cursor-ns-resize" />
            <Slider.Thumb
              aria-label="Moment"
              aria-valuetext={says}
              className="group absolute block h-0 outline-none"
              style={{ left: 0 }}
            >
              <span className="absolute top-[-22px] left-0 flex h-11 w-[76px] cursor-grab items-center">
                <span
                  className={`flex h-7 w-[72px] items-center justify-center rounded-lg text-body font-[700] group-focus-visible:ring-3 group-focus-visible:ring-rim group-focus-visible:ring-offset-2 group-focus-visible:ring-offset-enamel ${
                    inside ? 'bg-rim text-rim-text' : 'bg-ink2 text-enamel'
                  }`}
                >
                  {timeWords(at, hand)}
                </span>
              </span>
            </Slider.Thumb>
          </Slider.Root>
        </>
      )}
    </div>
  )
}

/** Round times for the ticks, four to eight of them. */
function hours(whole: number): number[] {
  const steps = [1, 2, 5, 10, 15, 30, 60, 120, 240, 480, 720, 1440]
  const step = steps.find((own) => whole / own <= 7) ?? 2880
  return Array.from({ length: Math.floor(whole / step) + 1 }, (_, k) => k * step)
}

function ticks(coldest: number, warmest: number): number[] {
  const step = warmest - coldest > 60 ? 10 : 5
  const from = Math.ceil(coldest / step) * step
  const all = Array.from({ length: Math.floor((warmest - from) / step) + 1 }, (_, k) => from + k * step)
  // The last one carries its unit: what is too near to it makes room.
  return [...all.filter((t) => warmest - t > 0.1 * (warmest - coldest)), warmest]
}
