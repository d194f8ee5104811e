import { scaleLog } from 'd3-scale'
import { useRef } from 'react'
import { Link } from 'react-router'
import type { MeasuredKind, MeasuredPoint } from '../../api/client'
import { dayOf, twoDigits } from '../../lib/format'
import { useSize } from '../../lib/hooks'
import { decades, marksOf } from './marks'

const FOOT = 46
const LEFT = 62
const HEIGHT = 380

/** What is on the level axis: what was predicted then, or the book alone. */
export type Against = 'said' | 'book'

/** Every test of a kind: predicted to the right, measured upward, on the line where both agree. A mark leads to its batch. */
export function AgreementPlot({ kind, against }: { kind: MeasuredKind; against: Against }) {
  const frame = useRef<HTMLDivElement>(null)
  const { width } = useSize(frame)
  const { points } = kind
  const marks = marksOf(points)
  const { domain, ticks } = decades(points.flatMap((own) => [own[against].value, own.measured.value]))
  const right = Math.max(LEFT + 80, width - 8)
  const x = scaleLog().domain(domain).range([LEFT, right])
  const y = scaleLog()
    .domain(domain)
    .range([HEIGHT - FOOT, 10])
  return (
    <figure className="min-w-0">
      <div ref={frame} className="relative" style={{ height: HEIGHT }}>
        {width > 0 && (
          <>
            <svg width={width} height={HEIGHT} className="absolute inset-0 block" aria-hidden="true">
              <rect
                x={LEFT}
                y={10}
                width={right - LEFT}
                height={HEIGHT - FOOT - 10}
                rx={6}
                fill="var(--shade)"
              />
              {ticks.map((own) => (
                <g key={own} stroke="var(--line2)" strokeOpacity={0.4}>
                  <line x1={x(own)} x2={x(own)} y1={10} y2={HEIGHT - FOOT} />
                  <line x1={LEFT} x2={right} y1={y(own)} y2={y(own)} />
                </g>
              ))}
              {ticks.map((own) => (
                <g key={own} fill="var(--ink2)" fontSize={13}>
                  <text
                    x={x(own)}
                    y={HEIGHT - FOOT + 18}
                    textAnchor={own === ticks.at(-1) ? 'end' : 'middle'}
                  >
                    {short(own)}
                  </text>
                  <text x={LEFT - 6} y={y(own) + 4} textAnchor="end">
                    {short(own)}
                  </text>
                </g>
              ))}
              <line
                x1={x(domain[0])}
                y1={y(domain[0])}
                x2={x(domain[1])}
                y2={y(domain[1])}
                stroke="var(--ink)"
                strokeWidth={2}
              />
              <text x={right} y={HEIGHT - 6} textAnchor="end" fontSize={13} fill="var(--ink)">
                predicted, {kind.unit}
              </text>
              <text x={LEFT + 6} y={26} fontSize={13} fill="var(--ink)">
                measured, {kind.unit}
              </text>
              <defs>
                <clipPath id={`field-${kind.kind}`}>
                  <rect x={LEFT} y={10} width={right - LEFT} height={HEIGHT - FOOT - 10} rx={6} />
                </clipPath>
              </defs>
              <g
                clipPath={`url(#field-${kind.kind})`}
                stroke="var(--rim)"
                strokeOpacity={0.5}
                strokeWidth={2}
              >
                {points.map((own) => (
                  <g key={own.test}>
                    <line
                      x1={x(own[against].low)}
                      x2={x(own[against].high)}
                      y1={y(own.measured.value)}
                      y2={y(own.measured.value)}
                    />
                    <line
                      x1={x(own[against].value)}
                      x2={x(own[against].value)}
                      y1={y(own.measured.low)}
                      y2={y(own.measured.high)}
                    />
                  </g>
                ))}
              </g>
            </svg>
            {points.map((own) => (
              <Link
                key={own.test}
                to={`/log/${own.batch}`}
                aria-label={label(own, kind, against)}
                title={label(own, kind, against)}
                className="absolute flex h-6 w-6 -translate-x-1/2 -translate-y-1/2 items-center justify-center rounded-full hover:z-10 hover:bg-rim-tint focus-visible:z-10"
                style={{ left: x(own[against].value), top: y(own.measured.value) }}
              >
                <svg width={18} height={18} viewBox="-9 -9 18 18" aria-hidden="true">
                  <path d={marks.get(own.family)?.path} {...lookOf(own)} />
                </svg>
              </Link>
            ))}
          </>
        )}
      </div>
      <figcaption>
        <ul className="flex flex-wrap gap-x-4 gap-y-1 text-note">
          {[...marks.values()].map((own) => (
            <li key={own.family} className="inline-flex items-center gap-1.5">
              <svg width={16} height={16} viewBox="-9 -9 18 18" aria-hidden="true">
                <path d={own.path} fill="var(--ink)" />
              </svg>
              {own.word}
            </li>
          ))}
          {points.some((own) => own.counts === 'does_not_fit') && (
            <li className="inline-flex items-center gap-1.5 text-hot">
              <svg width={16} height={16} viewBox="-9 -9 18 18" aria-hidden="true">
                <circle r={6} fill="none" stroke="var(--hot)" strokeWidth={2.2} strokeDasharray="3 2" />
              </svg>
              does not fit: measure again
            </li>
          )}
          {points.some((own) => own.counts !== 'yes' && own.counts !== 'does_not_fit') && (
            <li className="inline-flex items-center gap-1.5 text-ink2">
              <svg width={16} height={16} viewBox="-9 -9 18 18" aria-hidden="true">
                <circle r={6} fill="none" stroke="var(--ink2)" strokeWidth={2} />
              </svg>
              counts for nothing
            </li>
          )}
        </ul>
      </figcaption>
    </figure>
  )
}

function lookOf(own: MeasuredPoint) {
  if (own.counts === 'yes') return { fill: 'var(--ink)', stroke: 'var(--enamel)', strokeWidth: 1.2 }
  if (own.counts === 'does_not_fit')
    return { fill: 'var(--enamel)', stroke: 'var(--hot)', strokeWidth: 2.2, strokeDasharray: '3 2' }
  return { fill: 'var(--enamel)', stroke: 'var(--ink2)', strokeWidth: 2 }
}

function label(own: MeasuredPoint, kind: MeasuredKind, against: Against): string {
  const predicted = `${twoDigits(own[against].value)} ${kind.unit} predicted`
  const measured = `${twoDigits(own.measured.value)} measured`
  return `${own.name}, ${dayOf(own.at)}: ${predicted}, ${measured}`
}

function short(value: number): string {
  return value >= 1000 ? `${value / 1000}k` : String(Number(value.toPrecision(2)))
}
