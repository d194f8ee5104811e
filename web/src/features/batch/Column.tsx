import type { BatchLine } from '../../api/client'
import { weighed } from '../../lib/format'

const WIDE = 300
const HIGH = 600
const TOP = 14
const FOOT = 30
const LEFT = 96
const ACROSS = 118

/** A step between ticks of which there are 4 to 10 up to so much. */
function tick(most: number): number {
  const rough = most / 7
  const ten = 10 ** Math.floor(Math.log10(rough))
  return [1, 2, 5, 10].map((by) => by * ten).find((step) => step >= rough) ?? ten
}

/** What still falls when the hand has stopped, and what the scale has not shown yet, s. */
const LATE_S = 1.2
/** Below this nothing is poured, g/s. */
const FLOWS = 1

interface ColumnProps {
  line: BatchLine
  /** What the scale shows of it besides what is in, g. */
  onScale?: number
  /** How fast it rises, g/s. */
  rate?: number
}

/** What is in of a line, drawn as it rises to its mark; past what it may be, what is too much is crossed. */
export function Column({ line, onScale = 0, rate = 0 }: ColumnProps) {
  const { band } = line
  const poured = Math.max(0, line.in_g + onScale)
  const most = Math.max(1.26 * band.mark_g, 1.08 * poured, 0.01)
  const y = (grams: number) => HIGH - FOOT - (grams / most) * (HIGH - FOOT - TOP)
  const step = tick(most)
  const ticks = Array.from({ length: Math.floor(most / step) + 1 }, (_, at) => at * step)
  const over = Math.max(0, poured - band.to_g)
  const level = poured - over
  const stop = band.mark_g - LATE_S * rate
  const slow = rate >= FLOWS && stop > poured ? stop : null
  const label = `${weighed(poured)} g of ${line.name} in, its mark is ${weighed(band.mark_g)} g, from ${weighed(band.from_g)} to ${weighed(band.to_g)} g`
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      className="h-full max-h-[620px] w-full"
      role="img"
      aria-label={label}
    >
      <defs>
        <pattern
          id="too-much"
          width="9"
          height="9"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="9" height="9" fill="var(--hot)" />
          <rect width="3" height="9" fill="var(--enamel)" />
        </pattern>
      </defs>
      <rect x={LEFT} y={TOP} width={ACROSS} height={HIGH - FOOT - TOP} fill="var(--well)" />
      {poured > 0 && (
        <rect
          x={LEFT}
          y={y(level)}
          width={ACROSS}
          height={HIGH - FOOT - y(level)}
          fill="var(--mixture, var(--tape))"
        />
      )}
      {over > 0 && (
        <rect x={LEFT} y={y(poured)} width={ACROSS} height={y(level) - y(poured)} fill="url(#too-much)" />
      )}
      <path
        d={`M${LEFT} ${TOP - 10}V${HIGH - FOOT - 14}Q${LEFT} ${HIGH - FOOT} ${LEFT + 14} ${HIGH - FOOT}H${LEFT + ACROSS - 14}Q${LEFT + ACROSS} ${HIGH - FOOT} ${LEFT + ACROSS} ${HIGH - FOOT - 14}V${TOP - 10}`}
        fill="none"
        stroke="var(--rim)"
        strokeWidth="5"
      />
      {ticks.map((grams) => (
        <g key={grams}>
          <line
            x1={LEFT - 16}
            x2={LEFT - 4}
            y1={y(grams)}
            y2={y(grams)}
            stroke="var(--ink)"
            strokeWidth="2"
          />
          <text
            x={LEFT - 22}
            y={y(grams) + 7}
            textAnchor="end"
            fontSize="20"
            fontWeight="640"
            fill="var(--ink)"
          >
            {weighed(grams)}
          </text>
        </g>
      ))}
      <rect
        x={LEFT - 14}
        y={y(band.to_g)}
        width={ACROSS + 28}
        height={Math.max(2, y(band.from_g) - y(band.to_g))}
        fill="var(--rim)"
        opacity="0.3"
      />
      <line
        x1={LEFT - 14}
        x2={LEFT + ACROSS + 14}
        y1={y(band.mark_g)}
        y2={y(band.mark_g)}
        stroke="var(--rim)"
        strokeWidth="4"
      />
      <g transform={`translate(${LEFT + ACROSS + 14} ${y(band.mark_g)})`}>
        <rect y="-20" width="70" height="40" rx="8" fill="var(--rim)" />
        <text x="35" y="8" textAnchor="middle" fontSize="22" fontWeight="720" fill="var(--rim-text)">
          {weighed(band.mark_g)}
        </text>
      </g>
      {slow !== null && (
        <g>
          <line
            x1={LEFT}
            x2={LEFT + ACROSS}
            y1={y(slow)}
            y2={y(slow)}
            stroke="var(--ink)"
            strokeWidth="2"
            strokeDasharray="6 5"
          />
          <text
            x={LEFT + ACROSS / 2}
            y={y(slow) - 7}
            textAnchor="middle"
            fontSize="18"
            fontWeight="640"
            fill="var(--ink)"
          >
            stop here
          </text>
        </g>
      )}
      {poured > 0 && Math.abs(y(poured) - y(band.mark_g)) > 44 && (
        <g transform={`translate(${LEFT + ACROSS + 8} ${y(poured)})`}>
          <path d="M0 0L16 -10V10Z" fill="var(--ink)" />
          <text x="22" y="8" fontSize="24" fontWeight="720" fill="var(--ink)">
            {weighed(poured)}
          </text>
          {rate >= FLOWS && (
            <text x="22" y="32" fontSize="18" fill="var(--ink)">
              {Math.round(rate)} g/s
            </text>
          )}
        </g>
      )}
    </svg>
  )
}
