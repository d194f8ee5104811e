import { useRef } from 'react'
import type { Assessment, Phase, PhaseShares } from '../../api/client'
import { fixed, percent } from '../../lib/format'
import { useSize } from '../../lib/hooks'
import { PHASE_WORD, PHASES, phaseFill, stacked } from '../../ui/phases'

interface BalanceProps {
  answer: Assessment | undefined
  /** Shares to show in place of the answer's: those of a way that is tried. */
  instead?: PhaseShares | undefined
  /** Whether the brackets belong to what is shown. */
  fresh: boolean
}

const BAR = 36
/** Under this a segment names itself above the bar. */
const ROOM_FOR_LABEL = 104
const LEAST = 6
/** Less alcohol than this is not named, per cent of total. */
const LEAST_NAMED = 0.05
/** Heights kept for the bar with its words beside it, and for the bar with a list of four below it. */
const BESIDE = 90
const LISTED = 144
/** Under this the words have no room at the bar and stand in a list below it. */
const ROOM_FOR_WORDS = 520

/**
 * What the ganache is made of, per cent of its weight. Brackets: where that share alone would meet
 * the job; a small triangle marks the share's end, so triangle in bracket is right.
 */
export function Balance({ answer, instead, fresh }: BalanceProps) {
  const frame = useRef<HTMLDivElement>(null)
  const { width } = useSize(frame)
  const shares = instead ?? answer?.totals.phases_of_total_percent
  const ofAlcohol = instead ? 0 : (answer?.totals.alcohol.of_total_percent ?? 0)
  const present = PHASES.filter((phase) => shares && shares[phase] > 0.05)
  const words = shares
    ? present.map((phase) => `${PHASE_WORD[phase]} ${percent(shares[phase])}`).join(', ') +
      (ofAlcohol >= LEAST_NAMED ? `; of that, alcohol ${percent(ofAlcohol)}, counted as water` : '') +
      (airPercent(answer) > 0 ? `; air ${fixed(airPercent(answer), 0)} % on volume` : '')
    : 'nothing yet'
  const air = airPercent(answer)
  // Air weighs nothing: it stands past the end stop, at the bar's own scale as far as there is room.
  const airRoom = air > 0 ? Math.min(0.38, (0.38 * air) / 100 + 0.09) * width : 0
  const scale = (width - 2 - airRoom) / 100
  const segments = (shares ? stacked(shares, 1) : [])
    .filter(({ phase }) => present.includes(phase))
    .map(({ phase, start, size }) => ({ phase, from: start, share: size }))
  // Alcohol is part of the watery phase, and has its own name in it; of a way that is tried only the phases are known.
  const parts = segments.flatMap((segment): Part[] => {
    const { phase, from, share } = segment
    if (phase !== 'water' || ofAlcohol < LEAST_NAMED || ofAlcohol >= share) return [segment]
    return [
      { phase, from, share: share - ofAlcohol },
      { phase: 'alcohol', from: from + share - ofAlcohol, share: ofAlcohol },
    ]
  })
  const listed = width < ROOM_FOR_WORDS
  // The room above the bar is kept whether a name stands there or not: what is below must not move when an answer comes.
  const top = listed ? 2 : 20
  const brackets = answer ? labels(answer, segments, scale, width - airRoom) : []
  const above = labelsAbove(parts, scale, width - airRoom)
  return (
    <div ref={frame} style={{ minHeight: listed ? LISTED : BESIDE }}>
      {width > 0 && (
        <svg
          width={width}
          height={top + BAR + (listed ? 18 : 34)}
          role="img"
          aria-label={`Balance, of total weight: ${words}`}
        >
          {parts.map(({ phase, from, share }) => {
            const w = Math.max(LEAST, share * scale)
            const x = 1 + Math.min(from * scale, width - 2 - airRoom - w)
            return (
              <g key={phase}>
                <rect x={x} y={top} width={w} height={BAR} fill={phaseFill(phase)} stroke="var(--ink)" />
                {!listed && (
                  <SegmentLabel
                    phase={phase}
                    share={share}
                    x={x}
                    w={w}
                    y={top}
                    above={above.get(phase) ?? 0}
                  />
                )}
              </g>
            )
          })}
          <rect
            x={1}
            y={top}
            width={width - 2 - airRoom}
            height={BAR}
            rx={4}
            fill={segments.length > 0 ? 'none' : 'var(--well)'}
            stroke="var(--ink)"
            strokeWidth={1.6}
          />
          {airRoom > 0 && (
            <g>
              <rect x={width - airRoom - 2} y={top - 4} width={4} height={BAR + 8} fill="var(--ink)" />
              <rect
                x={width - airRoom + 2}
                y={top}
                width={airRoom - 4}
                height={BAR}
                fill="url(#phase-air)"
                stroke="var(--ink2)"
                strokeDasharray="4 3"
              />
              {!listed && (
                <>
                  <rect
                    x={width - airRoom + 8}
                    y={top + 8}
                    width={96}
                    height={BAR - 16}
                    fill="var(--enamel)"
                  />
                  <text x={width - airRoom + 12} y={top + BAR / 2 + 5} fontSize={15} fill="var(--ink)">
                    Air <tspan fontWeight={700}>+{fixed(air, 0)} % vol</tspan>
                  </text>
                </>
              )}
            </g>
          )}
          <g opacity={fresh && !instead ? 1 : 0.25} className="transition-opacity duration-100">
            {brackets.map((label, k) => (
              <Bracket
                key={label.phase}
                label={label}
                y={top + BAR}
                low={k % 2 === 1}
                worded={!listed}
                width={width - airRoom}
              />
            ))}
          </g>
        </svg>
      )}
      {width > 0 && listed && (
        <ul aria-hidden="true" className="grid grid-cols-[auto_auto_minmax(0,1fr)] gap-x-3 text-note">
          {parts.map(({ phase, share }) => {
            const bracket = brackets.find((each) => each.phase === phase)
            return (
              <li key={phase} className="contents">
                <span className="flex items-center gap-1.5">
                  <svg width={14} height={14}>
                    <rect width={14} height={14} fill={phaseFill(phase)} stroke="var(--ink)" />
                  </svg>
                  {PHASE_WORD[phase]}
                </span>
                <b>{percent(share)}</b>
                <span className={bracket && bracket.off !== 0 ? 'font-[640] text-hot' : 'text-ink2'}>
                  {fresh && !instead ? bracket?.words : ''}
                </span>
              </li>
            )
          })}
          {air > 0 && (
            <li className="contents">
              <span>Air</span>
              <b>+{fixed(air, 0)} % vol</b>
              <span />
            </li>
          )}
        </ul>
      )}
    </div>
  )
}

function airPercent(answer: Assessment | undefined): number {
  const air = answer?.process.overrun_percent ?? 0
  return air > 0.5 ? air : 0
}

/** What a stretch of the bar is named: a phase, or the alcohol in the watery one. */
interface Part {
  phase: Phase | 'alcohol'
  from: number
  share: number
}

interface Segment {
  phase: Phase
  /** Where it starts and how much it is, per cent of total. */
  from: number
  share: number
}

/** Middles of the labels that stand above the bar, pushed apart from the right. */
function labelsAbove(segments: Part[], scale: number, width: number): Map<Part['phase'], number> {
  const places = new Map<Part['phase'], number>()
  let limit = width - 2
  for (const { phase, from, share } of segments.toReversed()) {
    const w = Math.max(LEAST, share * scale)
    if (w >= ROOM_FOR_LABEL) continue
    const half = ((PHASE_WORD[phase].length + 7) * 7) / 2
    const middle = Math.max(half, Math.min(1 + from * scale + w / 2, limit - half))
    places.set(phase, middle)
    limit = middle - half - 8
  }
  return places
}

interface SegmentLabelProps {
  /** Middle of the label when it stands above. */
  above: number
  phase: Part['phase']
  share: number
  x: number
  w: number
  y: number
}

function SegmentLabel({ phase, share, x, w, y, above }: SegmentLabelProps) {
  const text = PHASE_WORD[phase]
  const figure = percent(share)
  if (w < ROOM_FOR_LABEL) {
    return (
      <text x={above} y={y - 6} textAnchor="middle" fontSize={13} fill="var(--ink2)">
        {text} <tspan fontWeight={680}>{figure}</tspan>
      </text>
    )
  }
  const light = phase === 'dry' || phase === 'setting'
  // The label stands on a plain plate of the phase's colour, so the pattern does not run through it.
  return (
    <>
      <rect
        x={x + 7}
        y={y + 7}
        width={text.length * 7.4 + 62}
        height={BAR - 14}
        rx={3}
        fill={`var(--${phase === 'alcohol' ? 'water' : phase})`}
      />
      <text x={x + 12} y={y + BAR / 2 + 5} fontSize={15} fill={light ? '#fff' : 'var(--phase-text)'}>
        {text} <tspan fontWeight={700}>{figure}</tspan>
      </text>
    </>
  )
}

interface Label {
  phase: Phase
  words: string
  /** Middle of the text. */
  x: number
  off: number
  left: number
  right: number
  tip: number
}

/** About how wide a character of the small print is. */
const CHARACTER = 7.7

/** Brackets with their words, pushed apart from the right so that none stands on another. */
function labels(answer: Assessment, segments: Segment[], scale: number, width: number): Label[] {
  const x = (percentOfTotal: number) => 1 + Math.min(100, percentOfTotal) * scale
  const made = segments.flatMap(({ phase, from, share }): Label[] => {
    const reach = answer.reach.find((each) => each.phase === phase)
    if (!reach) return []
    const off = reach.off_points
    const range = `${fixed(reach.from_percent, 0)}–${fixed(reach.to_percent, 0)}`
    const drunk = phase === 'water' && answer.totals.alcohol.of_total_percent >= LEAST_NAMED
    const said = off === 0 ? range : `${range}, ${off < 0 ? 'short' : 'over'} ${fixed(Math.abs(off), 1)}`
    const words = drunk ? `with alcohol ${said}` : said
    const [left, right] = [x(from + reach.from_percent), x(from + reach.to_percent)]
    return [{ phase, words, x: (left + right) / 2, off, left, right, tip: x(from + share) }]
  })
  let limit = width - 2
  for (const label of made.toReversed()) {
    const half = (label.words.length * CHARACTER) / 2
    label.x = Math.max(half, Math.min(label.x, limit - half))
    limit = label.x - half - 12
  }
  return made
}

interface BracketProps {
  label: Label
  y: number
  low: boolean
  /** Whether it says what it shows. */
  worded: boolean
  width: number
}

function Bracket({ label, y, low, worded, width }: BracketProps) {
  const { left, right, tip, off, words } = label
  const colour = off === 0 ? 'var(--ink)' : 'var(--hot)'
  // The last share ends at 100 whatever it is: figures only.
  const last = tip > width - 4
  const foot = y + (low ? 14 : 10)
  return (
    <g>
      {!last && <path d={`M${tip - 5} ${y + 8}h10l-5-7z`} fill={colour} />}
      {!last && (
        <path
          d={`M${left} ${y + 3}V${foot}H${right}V${y + 3}`}
          fill="none"
          stroke={colour}
          strokeWidth={1.6}
        />
      )}
      {worded && (
        <text
          x={label.x}
          y={y + 29}
          textAnchor="middle"
          fontSize={13}
          fontWeight={off === 0 ? 450 : 680}
          fill={off === 0 ? 'var(--ink2)' : 'var(--hot)'}
        >
          {words}
        </text>
      )}
    </g>
  )
}
