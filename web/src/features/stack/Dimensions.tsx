import type { PlaceAnswer, StackAnswer } from '../../api/client'
import { millimetres } from './geometry'
import type { Callout, Frame } from './geometry'

const GAP = 37

interface CalloutsProps {
  frame: Frame
  named: Callout[]
  left: number
  top: number
  bottom: number
  selected: string | null
  onSelect: (path: string) => void
}

/** Names and grams beside the cut half, each with a line to its dot; pushed apart so that none covers another. */
export function Callouts({ frame, named, left, top, bottom, selected, onSelect }: CalloutsProps) {
  const shown = [...named].sort((a, b) => b.at[1] - a.at[1])
  const wanted = shown.map((each) => frame.y(each.at[1]))
  const places = apart(wanted, top, bottom)
  return (
    <g>
      {shown.map((each, k) => {
        const y = places[k] ?? 0
        const here = each.path === selected
        const [dx, dy] = [frame.x(each.at[0]), frame.y(each.at[1])]
        const elbow = left + 150
        return (
          <g key={each.path} onClick={() => onSelect(each.path)} style={{ cursor: 'pointer' }}>
            <path
              d={`M${elbow - 6} ${y}H${elbow + 4}L${Math.max(elbow + 8, dx - 22)} ${dy}H${dx}`}
              fill="none"
              stroke={here ? 'var(--rim)' : 'var(--ink)'}
              strokeWidth={here ? 2 : 0.9}
            />
            <circle
              cx={dx}
              cy={dy}
              r={3.2}
              fill={here ? 'var(--rim)' : 'var(--ink)'}
              stroke="var(--enamel)"
              strokeWidth="1.2"
            />
            <rect x={left - 4} y={y - 19} width={132} height={35} fill="var(--enamel)" opacity="0.01" />
            <text x={left} y={y - 3} fontSize="15" fontWeight="700" fill={here ? 'var(--rim)' : 'var(--ink)'}>
              {each.title}
            </text>
            <text x={left} y={y + 13} fontSize="13" fill="var(--ink2)">
              {each.under}
            </text>
          </g>
        )
      })}
    </g>
  )
}

/** Heights at least one gap apart, as near to the wanted ones as the room between top and bottom allows. */
function apart(wanted: number[], top: number, bottom: number): number[] {
  const gap = Math.min(GAP, (bottom - top) / Math.max(1, wanted.length - 1))
  const down: number[] = []
  for (const y of wanted) {
    const before = down.at(-1)
    down.push(Math.max(top, before === undefined ? y : Math.max(y, before + gap)))
  }
  let limit = bottom
  return down
    .reverse()
    .map((y) => {
      const kept = Math.min(y, limit)
      limit = kept - gap
      return kept
    })
    .reverse()
}

interface DimensionsProps {
  frame: Frame
  answer: StackAnswer
  drips: PlaceAnswer[]
  right: number
  onSelect: (path: string) => void
}

/** Heights of the tiers, the whole width, and how long the drips will be. */
export function Dimensions({ frame, answer, drips, right, onSelect }: DimensionsProps) {
  const rule = Math.min(right - 84, frame.x(answer.width_mm / 2) + 42)
  const several = answer.tiers.length > 1
  const below = frame.y(0) + 34
  const half = answer.width_mm / 2
  const drip = drips.at(-1)
  const lengths = [...(drip?.drips_mm ?? [])].sort((a, b) => a - b)
  return (
    <g>
      {answer.tiers.map((tier, at) => {
        const [y0, y1] = [frame.y(tier.z_mm[0] ?? 0), frame.y(tier.z_mm[1] ?? 0)]
        return (
          <Upright
            key={at}
            x={rule}
            y0={y0}
            y1={y1}
            words={`${millimetres((tier.z_mm[1] ?? 0) - (tier.z_mm[0] ?? 0))} mm`}
          />
        )
      })}
      {several && (
        <Upright
          x={rule + 58}
          y0={frame.y(0)}
          y1={frame.y(answer.height_mm)}
          words={`${millimetres(answer.height_mm)}`}
        />
      )}
      <path
        d={`M${frame.x(-half)} ${below - 6}v12M${frame.x(half)} ${below - 6}v12M${frame.x(-half)} ${below}H${frame.x(half)}`}
        stroke="var(--rim)"
        strokeWidth="2"
        fill="none"
      />
      <rect x={frame.x(0) - 66} y={below - 11} width={132} height={22} fill="var(--enamel)" />
      <text
        x={frame.x(0)}
        y={below + 5}
        fontSize="15.5"
        fontWeight="700"
        textAnchor="middle"
        fill="var(--rim)"
      >
        {millimetres(answer.width_mm)} mm across
      </text>
      {drip && lengths.length > 0 && (
        <g onClick={() => onSelect(drip.path)} style={{ cursor: 'pointer' }}>
          <text x={right - 12} y={22} fontSize="15.5" fontWeight="700" textAnchor="end" fill="var(--ink)">
            Drips {millimetres(lengths[Math.floor(lengths.length / 2)] ?? 0)} mm, most{' '}
            {millimetres(lengths[0] ?? 0)} to {millimetres(lengths.at(-1) ?? 0)}
          </text>
          <text x={right - 12} y={39} fontSize="13.5" textAnchor="end" fill="var(--ink2)">
            {drip.name}
          </text>
        </g>
      )}
    </g>
  )
}

function Upright({ x, y0, y1, words }: { x: number; y0: number; y1: number; words: string }) {
  const middle = (y0 + y1) / 2
  return (
    <g>
      <path
        d={`M${x - 6} ${y0}h12M${x - 6} ${y1}h12M${x} ${y0}V${y1}`}
        stroke="var(--rim)"
        strokeWidth="2"
        fill="none"
      />
      <rect x={x - 28} y={middle - 12} width={56} height={23} fill="var(--enamel)" />
      <text x={x} y={middle + 5} fontSize="15.5" fontWeight="700" textAnchor="middle" fill="var(--rim)">
        {words}
      </text>
    </g>
  )
}
