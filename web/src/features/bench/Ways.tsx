import { useRef, useState } from 'react'
import type { Assessment, Way, Ways as WaysAnswer } from '../../api/client'
import { price, unbroken, weighed } from '../../lib/format'
import { useSize } from '../../lib/hooks'
import { AskFirst } from '../../ui/AskFirst'
import { Button, Keycap } from '../../ui/Button'
import { useKitchen } from '../kitchen/queries'
import { GUTTER } from './mapScales'
import { comesOut } from './point'
import { LETTERS } from './useTrying'

interface WaysProps {
  /** The way that is to be used once what it brings is allowed. */
  asking: number | null
  onAllowed: (at: number) => void
  onRefused: () => void
  answer: Assessment
  found: WaysAnswer | undefined
  /** Looking for longer than the eye waits. */
  looking: boolean
  /** What is wrong with the question, in words. */
  wrong: string | null
  /** Temperature of the working line, °C. */
  temperature: number
  tried: number | null
  shown: number | null
  onPoint: (at: number | null) => void
  onTry: (at: number | null) => void
  onUse: (at: number) => void
  onNearest: () => void
  onLimits: () => void
  /** How many rules hold. */
  rules: number
}

/** Ways into the window, hung under the map on its own axis. */
export function Ways(props: WaysProps) {
  const { answer, found, looking, wrong, rules, onLimits } = props
  const ways = found?.ways ?? []
  const outside = answer.at.outcome !== 'inside'
  // While the next are looked for the place of the last stays free: what is below does not move under the hand.
  const frame = useRef<HTMLElement>(null)
  const { height } = useSize(frame)
  const [held, setHeld] = useState(0)
  if (found && height !== held) setHeld(height)
  return (
    <section
      ref={frame}
      aria-label="Ways there"
      className="flex flex-col gap-1"
      style={found ? undefined : { minHeight: held }}
    >
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h2 className="text-lead">{outside || ways.length === 0 ? 'Ways there' : 'Further from the edge'}</h2>
        {ways.length > 0 && (
          <span className="text-note text-ink2">where it would be right, °C; the ring is where you work</span>
        )}
        <button
          type="button"
          onClick={onLimits}
          className="ml-auto min-h-9 rounded-md px-2 font-[640] text-rim underline pointer-coarse:min-h-11"
        >
          {rules === 0 ? 'What must hold' : `What must hold: ${rules} ${rules === 1 ? 'rule' : 'rules'}`}
        </button>
      </div>
      {wrong && (
        <p role="alert" className="text-hot">
          {wrong}
        </p>
      )}
      {looking && <p className="text-ink2">Trying amounts, degrees and hours…</p>}
      {found?.settled && (
        <p className="text-ink2">
          {rules === 0
            ? 'Nothing to do: it stands inside with room on both sides.'
            : 'Nothing to do: it stands inside with room on both sides, and the rules hold.'}
        </p>
      )}
      {found?.nearest && (
        <p className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
          <span className="text-hot">{found.nearest.sentence}</span>
          {found.nearest.changes.length > 0 && <Button onClick={props.onNearest}>Take the nearest</Button>}
        </p>
      )}
      {found && !found.settled && !found.nearest && ways.length === 0 && (
        <p className="text-ink2">
          {answer.at.unknown
            ? 'Nothing like it was ever checked, so no amounts are promised: make a small one and see.'
            : 'No way there is known that a cook would take.'}
        </p>
      )}
      {ways.length > 0 && <Rows {...props} ways={ways} outside={outside} />}
    </section>
  )
}

function Rows({
  answer,
  ways,
  outside,
  temperature,
  tried,
  shown,
  onPoint,
  onTry,
  onUse,
  asking,
  onAllowed,
  onRefused,
}: WaysProps & { ways: Way[]; outside: boolean }) {
  const frame = useRef<HTMLUListElement>(null)
  const { width } = useSize(frame)
  const hottest = answer.sweep.at(-1)?.temperature_c ?? 45
  const x = (t: number) => GUTTER + (t / hottest) * Math.max(0, width - GUTTER - 8)
  return (
    <ul ref={frame} onPointerLeave={() => onPoint(null)}>
      {ways.map((way, at) => {
        const letter = LETTERS[at] ?? ''
        const use = tried === at || (outside && at === 0 && tried === null)
        return (
          <li
            key={`${letter} ${way.title}`}
            data-way={letter}
            className={`border-t border-line py-0.5 first:border-0 ${shown === at ? 'bg-rim-tint' : ''}`}
            // A mouse that moves onto it, not one it appears under: only the first is pointing.
            onPointerMove={(event) => {
              if (event.pointerType === 'mouse' && (event.movementX !== 0 || event.movementY !== 0))
                onPoint(at)
            }}
            onFocus={() => onPoint(at)}
            onBlur={() => onPoint(null)}
          >
            <div className="flex items-center gap-2.5">
              <Keycap>{letter}</Keycap>
              <span className="min-w-0 flex-1 leading-tight">
                <Title words={way.title} />
                <span className="ml-2 text-note text-ink2 phone:whitespace-nowrap">{way.effect_words}</span>
                {way.asks_first.length > 0 && (
                  <span className="block text-note font-[640] text-hot">{way.asks_first.join(', ')}</span>
                )}
              </span>
              <Button
                look={use ? 'primary' : 'plain'}
                className="min-h-8 w-[72px] py-0"
                aria-label={`${use ? 'Use' : 'Try'} ${letter}: ${way.title}`}
                onClick={() => (use ? onUse(at) : onTry(at))}
              >
                {use ? 'Use' : 'Try'}
              </Button>
            </div>
            <Spans way={way} x={x} width={width} strong={use} working={temperature} wrong={outside} />
            {asking === at && (
              <AskFirst asks={way.asks_first} onYes={() => onAllowed(at)} onNo={() => onRefused()} />
            )}
            {tried === at && <Amounts way={way} />}
          </li>
        )
      })}
    </ul>
  )
}

/** The figures of the title stand out: they are what the hand does. */
function Title({ words }: { words: string }) {
  const parts = unbroken(words).split(
    /([+−][\d.,]+ (?:g|leaf|leaves|eggs?|yolks?|whites?|sticks?)|[\d.]+ °C|[\d.]+ h(?= )|(?<=to )[\d.]+\s%$)/,
  )
  return parts.map((part, k) =>
    k % 2 === 1 ? (
      <b key={k} className="text-lead whitespace-nowrap">
        {part}
      </b>
    ) : (
      <span key={k}>{part}</span>
    ),
  )
}

function Spans({
  way,
  x,
  width,
  strong,
  working,
  wrong,
}: {
  way: Way
  x: (t: number) => number
  width: number
  strong: boolean
  /** Temperature of the working line, °C. */
  working: number
  wrong: boolean
}) {
  const words = way.spans.map((span) => `${span.from_c.toFixed(1)}–${span.to_c.toFixed(1)}`).join(', ')
  return (
    <svg width={width} height={16} className="block" role="img" aria-label={`right at ${words} °C`}>
      <line x1={GUTTER} x2={Math.max(GUTTER, width - 8)} y1={8} y2={8} stroke="var(--line)" />
      {way.spans.map((span) => (
        <rect
          key={span.from_c}
          x={x(span.from_c)}
          y={4}
          width={Math.max(2, x(span.to_c) - x(span.from_c))}
          height={8}
          rx={2}
          fill="var(--rim)"
          opacity={strong ? 1 : 0.55}
        />
      ))}
      <line
        x1={x(working)}
        x2={x(working)}
        y1={0}
        y2={16}
        stroke={wrong ? 'var(--hot)' : 'var(--ink)'}
        strokeWidth={1.6}
        strokeDasharray="3 2.5"
      />
      <circle
        cx={x(way.at.temperature_c)}
        cy={8}
        r={5.4}
        fill="var(--enamel)"
        stroke="var(--ink)"
        strokeWidth={2.6}
      />
      <text x={0} y={13} fontSize={14} fontWeight={640} fill="var(--ink)">
        {words}
      </text>
    </svg>
  )
}

/** The new amounts, and what else they do. */
function Amounts({ way }: { way: Way }) {
  const kitchen = useKitchen()
  const { effects } = way
  const points = [
    ['fat', effects.fat_points],
    ['sugar', effects.sugar_points],
    ['water', effects.water_points],
    ['sweetness', effects.sweetness_points],
  ] as const
  const moved = points.filter(([, by]) => Math.abs(by) >= 0.05)
  const perKg = effects.cost_per_kg
  return (
    <div className="mt-1 flex flex-col gap-0.5 pl-[34px] text-note">
      {way.changes.length > 0 && (
        <p>
          {way.changes.map((change, k) => (
            <span key={`${change.name} ${k}`} className="mr-3 whitespace-nowrap">
              {change.name} {change.from_g > 0 && `${weighed(change.from_g)} → `}
              <b>{change.to_g > 0 ? `${weighed(change.to_g)} g` : 'out'}</b>
              {change.pieces && ` (${change.pieces})`}
            </span>
          ))}
        </p>
      )}
      <p className="text-ink2">
        {moved.map(([word, by]) => `${word} ${signed(by, 1)}`).join(', ')}
        {moved.length > 0 && ' points of total. '}
        {Math.abs(effects.batch_g) >= 0.5 && `Batch ${signed(effects.batch_g, 0)} g. `}
        {perKg != null &&
          Math.abs(perKg) >= 0.005 &&
          `${perKg > 0 ? 'Dearer' : 'Cheaper'} by ${price(Math.abs(perKg), kitchen.data?.currency ?? '')} a kg. `}
        {comesOut(way.at)}
      </p>
    </div>
  )
}

function signed(value: number, decimals: number): string {
  return `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(decimals)}`
}
