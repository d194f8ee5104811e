import { scaleLinear, scaleLog } from 'd3-scale'
import { curveMonotoneX, line } from 'd3-shape'
import { useRef } from 'react'
import type { Comparison } from '../../api/client'
import { useSize } from '../../lib/hooks'

const HEIGHT = 330
const DASHES = [undefined, '9 5', '2 5']

/** The curves over one another, each named on itself: line, dash and dot tell them apart, not colour. */
export function CompareMap({ comparison }: { comparison: Comparison }) {
  const frame = useRef<HTMLDivElement>(null)
  const { width } = useSize(frame)
  const { columns, sweep_step_k, axis } = comparison
  const points = columns[0]?.on_map.length ?? 0
  const hottest = sweep_step_k * Math.max(1, points - 1)
  const values = columns.flatMap((column) => column.on_map)
  const [low, high] = [Math.min(...values) / 1.6, Math.max(...values) * 1.6]
  const box = { left: 58, right: Math.max(200, width - 8), top: 6, bottom: HEIGHT - 30 }
  const x = scaleLinear().domain([0, hottest]).range([box.left, box.right])
  const y = scaleLog().domain([low, high]).range([box.bottom, box.top]).clamp(true)
  const unit = axis === 'viscosity_pa_s' ? 'Pa·s' : 'Pa'
  const decades = decadesBetween(low, high)
  const draw = line<number>()
    .x((_value, k) => x(k * sweep_step_k))
    .y((value) => y(value))
    .curve(curveMonotoneX)
  return (
    <div ref={frame} style={{ minHeight: HEIGHT }}>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`Curves of ${columns.map((column) => column.name).join(', ')} over temperature`}
        >
          <rect
            x={box.left}
            y={box.top}
            width={box.right - box.left}
            height={box.bottom - box.top}
            rx={6}
            fill="var(--shade)"
          />
          {decades.map((value) => (
            <g key={value}>
              <line
                x1={box.left}
                x2={box.right}
                y1={y(value)}
                y2={y(value)}
                stroke="var(--line2)"
                strokeDasharray="1.5 4"
              />
              <text x={box.left - 8} y={y(value) + 4} textAnchor="end" fontSize={12.5} fill="var(--ink2)">
                {value.toLocaleString('en')}
              </text>
            </g>
          ))}
          <text x={box.left - 8} y={box.bottom + 20} textAnchor="end" fontSize={12.5} fill="var(--ink2)">
            {unit}
          </text>
          {[0, 1, 2, 3].map((k) => {
            const t = (hottest / 3) * k
            return (
              <text
                key={k}
                x={x(t)}
                y={box.bottom + 20}
                textAnchor={k === 3 ? 'end' : k === 0 ? 'start' : 'middle'}
                fontSize={14}
                fill="var(--ink2)"
              >
                {k === 3 ? `${t} °C` : t}
              </text>
            )
          })}
          {columns.map((column, k) => (
            <path
              key={k}
              d={draw(column.on_map) ?? ''}
              fill="none"
              stroke={k === 0 ? 'var(--ink)' : 'var(--rim)'}
              strokeWidth={k === 0 ? 3.4 : 2.8}
              strokeDasharray={DASHES[k]}
              strokeLinecap="round"
            />
          ))}
          {columns.map((column, k) => {
            // Each name at another height of the field, on its own curve.
            const at = Math.round((points - 1) * (0.12 + 0.3 * k))
            const value = column.on_map[at] ?? low
            return (
              <text
                key={k}
                x={x(at * sweep_step_k) + 6}
                y={Math.max(box.top + 16, y(value) - 9)}
                fontSize={14}
                fontWeight={680}
                fill={k === 0 ? 'var(--ink)' : 'var(--rim)'}
                className={k === 0 ? '' : 'dim-lit'}
                stroke="var(--shade)"
                strokeWidth={5}
                paintOrder="stroke"
              >
                {column.name || `Formula ${k + 1}`}
              </text>
            )
          })}
        </svg>
      )}
    </div>
  )
}

function decadesBetween(low: number, high: number): number[] {
  const [from, to] = [Math.ceil(Math.log10(low)), Math.floor(Math.log10(high))]
  return Array.from({ length: Math.max(0, to - from + 1) }, (_, k) => 10 ** (from + k))
}
