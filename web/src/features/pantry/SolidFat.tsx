import { area, curveMonotoneX, line } from 'd3-shape'
import { fixed } from '../../lib/format'

const [WIDTH, HEIGHT] = [280, 120]
const [LEFT, RIGHT, TOP, BOTTOM] = [30, 272, 8, 96]
const ROOM_C = 20

/** How much of its fat is solid, over the temperatures of a kitchen. */
export function SolidFat({ percents }: { percents: number[] }) {
  const last = percents.length - 1
  const x = (t: number) => LEFT + ((RIGHT - LEFT) * t) / last
  const y = (percent: number) => BOTTOM - ((BOTTOM - TOP) * percent) / 100
  const curve = line<number>()
    .x((_value, t) => x(t))
    .y((value) => y(value))
    .curve(curveMonotoneX)
  const under = area<number>()
    .x((_value, t) => x(t))
    .y0(BOTTOM)
    .y1((value) => y(value))
    .curve(curveMonotoneX)
  const here = percents[ROOM_C] ?? 0
  return (
    <figure>
      <figcaption className="font-head text-lead font-[640]">How much of its fat is solid</figcaption>
      <svg
        width={WIDTH}
        height={HEIGHT}
        role="img"
        aria-label={`${fixed(here, 0)} % of its fat is solid at ${ROOM_C} °C, ${fixed(percents[5] ?? 0, 0)} % at 5 °C`}
      >
        <rect x={LEFT} y={TOP} width={RIGHT - LEFT} height={BOTTOM - TOP} fill="var(--well)" />
        <path d={under(percents) ?? ''} fill="var(--fat)" />
        <path d={curve(percents) ?? ''} fill="none" stroke="var(--ink)" strokeWidth={2.4} />
        <circle
          cx={x(ROOM_C)}
          cy={y(here)}
          r={5}
          fill="var(--enamel)"
          stroke="var(--ink)"
          strokeWidth={2.2}
        />
        <text
          x={Math.min(x(ROOM_C) + 10, RIGHT - 126)}
          y={Math.max(TOP + 14, y(here) - 8)}
          fontSize={13}
          fontWeight={640}
          fill="var(--ink)"
        >
          {fixed(here, 0)} % at {ROOM_C} °C
        </text>
        {[0, 50, 100].map((percent) => (
          <text
            key={percent}
            x={LEFT - 6}
            y={y(percent) + 4}
            textAnchor="end"
            fontSize={12.5}
            fill="var(--ink2)"
          >
            {percent}
          </text>
        ))}
        {[0, 15, 30, 45].map((t) => (
          <text
            key={t}
            x={x(t)}
            y={BOTTOM + 17}
            textAnchor={t === 45 ? 'end' : 'middle'}
            fontSize={12.5}
            fill="var(--ink2)"
          >
            {t === 45 ? '45 °C' : t}
          </text>
        ))}
      </svg>
    </figure>
  )
}
