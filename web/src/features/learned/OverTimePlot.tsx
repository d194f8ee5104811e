import { scaleLinear, scaleLog } from 'd3-scale'
import { useRef } from 'react'
import type { OverTime } from '../../api/client'
import { dayOf } from '../../lib/format'
import { useSize } from '../../lib/hooks'

const HEIGHT = 190
const LEFT = 62
const FOOT = 26

/** How far each test was off what was said before it, one after another; the book beside it. */
export function OverTimePlot({ over }: { over: OverTime }) {
  const frame = useRef<HTMLDivElement>(null)
  const { width } = useSize(frame)
  const { tests } = over
  const first = tests.at(0)
  const last = tests.at(-1)
  const right = Math.max(LEFT + 80, width - 8)
  const most = Math.max(
    1.6,
    ...tests.flatMap((own) => [own.said, own.book].map((by) => Math.max(by, 1 / by))),
  )
  const x = scaleLinear()
    .domain([0, Math.max(1, tests.length - 1)])
    .range([LEFT + 12, right - 12])
  const y = scaleLog()
    .domain([1 / (1.1 * most), 1.1 * most])
    .range([HEIGHT - FOOT, 8])
  const lines = [2, 1.5, 1, 1 / 1.5, 1 / 2].filter((own) => own <= most && own >= 1 / most)
  return (
    <figure className="min-w-0">
      <div ref={frame} style={{ height: HEIGHT }}>
        {width > 0 && (
          <svg width={width} height={HEIGHT} className="block" aria-hidden="true">
            <rect x={LEFT} y={8} width={right - LEFT} height={HEIGHT - FOOT - 8} rx={6} fill="var(--shade)" />
            {lines.map((own) => (
              <g key={own}>
                <line
                  x1={LEFT}
                  x2={right}
                  y1={y(own)}
                  y2={y(own)}
                  stroke={own === 1 ? 'var(--ink)' : 'var(--line2)'}
                  strokeWidth={own === 1 ? 2 : 1}
                  strokeOpacity={own === 1 ? 1 : 0.5}
                />
                <text x={LEFT - 6} y={y(own) + 4} textAnchor="end" fontSize={13} fill="var(--ink2)">
                  {own === 1 ? 'as said' : own > 1 ? `${own} ×` : `1/${Number((1 / own).toPrecision(2))}`}
                </text>
              </g>
            ))}
            {tests.map((own, at) => (
              <g key={own.test}>
                <line
                  x1={x(at)}
                  x2={x(at)}
                  y1={y(own.book)}
                  y2={y(own.said)}
                  stroke="var(--line2)"
                  strokeWidth={1.4}
                />
                <rect
                  x={x(at) - 4}
                  y={y(own.book) - 4}
                  width={8}
                  height={8}
                  fill="var(--enamel)"
                  stroke="var(--ink2)"
                  strokeWidth={1.6}
                />
                <circle cx={x(at)} cy={y(own.said)} r={5} fill="var(--rim)" />
              </g>
            ))}
            {first && (
              <text x={LEFT} y={HEIGHT - 8} fontSize={13} fill="var(--ink2)">
                {dayOf(first.at)}
              </text>
            )}
            {last && (
              <text x={right} y={HEIGHT - 8} textAnchor="end" fontSize={13} fill="var(--ink2)">
                {dayOf(last.at)}
              </text>
            )}
          </svg>
        )}
      </div>
      <figcaption className="flex flex-wrap gap-x-4 text-note">
        <span className="inline-flex items-center gap-1.5">
          <svg width={12} height={12} aria-hidden="true">
            <circle cx={6} cy={6} r={5} fill="var(--rim)" />
          </svg>
          measured, times what was said before the test
        </span>
        <span className="inline-flex items-center gap-1.5">
          <svg width={12} height={12} aria-hidden="true">
            <rect
              x={2}
              y={2}
              width={8}
              height={8}
              fill="var(--enamel)"
              stroke="var(--ink2)"
              strokeWidth={1.6}
            />
          </svg>
          measured, times the book
        </span>
      </figcaption>
    </figure>
  )
}
