import { useState } from 'react'
import type { BatchArrival, BatchView, WarmthPoint } from '../../api/client'
import { clock, degrees } from '../../lib/format'
import { readTemperature } from '../../lib/number'
import { Button } from '../../ui/Button'
import type { Say } from './say'
import type { WarmthNow } from './useWarmth'
import { WhichDevice } from './WhichDevice'

interface WarmthProps {
  view: BatchView
  warmth: WarmthNow
  onSay: Say
}

/** How warm it is: by the probe, or as the cook reads it; and when it will be as the step wants it. */
export function Warmth({ view, warmth, onSay }: WarmthProps) {
  const { probe, device, arrival } = warmth
  return (
    <section aria-label="How warm it is" className="border-b border-line pb-3">
      {probe ? (
        <ByProbe view={view} warmth={warmth} probe={probe} onSay={onSay} />
      ) : (
        <>
          {device && <p className="text-note text-hot">{device.words}</p>}
          <ByHand view={view} onSay={onSay} />
          {arrival && <When arrival={arrival} />}
        </>
      )}
    </section>
  )
}

interface ByProbeProps extends WarmthProps {
  probe: NonNullable<WarmthNow['probe']>
}

function ByProbe({ view, warmth, probe, onSay }: ByProbeProps) {
  const { c } = probe
  const { wanted, arrival, reads } = warmth
  const live = probe.state === 'live'
  const last = view.reads.at(-1)
  const inside = wanted !== null && c >= (wanted[0] ?? 0) && c <= (wanted[1] ?? 0)
  return (
    <>
      <p className="text-title text-ink2">
        <WhichDevice kind="probe" label="Which probe" />
        {live ? ', now' : ', old'}
      </p>
      <p
        className={`font-head text-[84px] leading-none font-[720] max-narrow:text-[60px] ${live ? '' : 'opacity-60'}`}
      >
        {degrees(c)}
      </p>
      {!live && <p className="text-hot">{probe.words}</p>}
      {wanted && (
        <p className="text-lead text-ink2">
          wanted {wanted[0]} to {wanted[1]} °C{inside && live ? ': it is there' : ''}
        </p>
      )}
      {wanted && <Curve reads={reads} arrival={arrival} wanted={wanted} />}
      {wanted && arrival && <When arrival={arrival} />}
      {last && (
        <p className="text-note text-ink2">
          {degrees(last.c)} written down at {clock(new Date(last.at)).time}
        </p>
      )}
      <Button
        className="mt-2 min-h-12"
        disabled={!live || view.closed != null}
        onClick={() => onSay({ what: 'read', c, by: 'device' })}
      >
        Write {degrees(c)} down
      </Button>
    </>
  )
}

/** When it will be there, by the clock of the wall, with its spread. */
function When({ arrival }: { arrival: BatchArrival }) {
  const at = (min: number | undefined) =>
    clock(new Date(Date.parse(arrival.since) + 60_000 * (min ?? 0))).time
  const [soon, likely, late] = arrival.min
  if (likely === undefined || likely === 0) return <p className="text-lead font-[640]">{arrival.sentence}</p>
  return (
    <p className="text-lead">
      <b>
        {degrees(arrival.to_c)} at about {at(likely)}
      </b>
      , {at(soon)} to {at(late)}
    </p>
  )
}

const WIDE = 300
const HIGH = 130

/** What was read, the way that is expected, and the opening that is wanted. */
function Curve({
  reads,
  arrival,
  wanted,
}: {
  reads: readonly WarmthPoint[]
  arrival: BatchArrival | null
  wanted: readonly number[]
}) {
  const pair = (own: WarmthPoint) => [own.min, own.c] as const
  const was = reads.map(pair)
  const will = (arrival?.way ?? []).map(pair)
  if (was.length < 2) return null
  const low = Math.min(...was.map((own) => own[1]), ...wanted) - 1
  const high = Math.max(...was.map((own) => own[1]), ...wanted) + 1
  const first = was[0]?.[0] ?? -1
  const last = Math.max(arrival?.min[2] ?? 0, -0.25 * first, 0.5)
  const x = (min: number) => ((min - first) / (last - first)) * WIDE
  const y = (c: number) => HIGH - ((c - low) / (high - low)) * HIGH
  const path = (all: readonly (readonly [number, number])[]) =>
    all.map(([min, c], at) => `${at === 0 ? 'M' : 'L'}${x(min).toFixed(1)} ${y(c).toFixed(1)}`).join('')
  const [from = 0, to = 0] = wanted
  const label = `From ${degrees(was[0]?.[1] ?? 0)} to ${degrees(was.at(-1)?.[1] ?? 0)} in ${Math.round(-first)} min; wanted ${from} to ${to} °C`
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      preserveAspectRatio="none"
      className="mt-2 h-[130px] w-full"
      role="img"
      aria-label={label}
    >
      <rect width={WIDE} height={HIGH} fill="var(--well)" />
      <rect y={y(to)} width={WIDE} height={Math.max(3, y(from) - y(to))} fill="var(--rim)" opacity="0.3" />
      <path d={path(was)} fill="none" stroke="var(--ink)" strokeWidth="3" vectorEffect="non-scaling-stroke" />
      {will.length > 1 && (
        <path
          d={path(will)}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="2"
          strokeDasharray="5 5"
          vectorEffect="non-scaling-stroke"
        />
      )}
      <line x1={x(0)} x2={x(0)} y1="0" y2={HIGH} stroke="var(--ink2)" strokeWidth="1" />
    </svg>
  )
}

function ByHand({ view, onSay }: { view: BatchView; onSay: Say }) {
  const [typed, setTyped] = useState('')
  const [wrong, setWrong] = useState<string | null>(null)
  const last = view.reads.at(-1)
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault()
        const read = readTemperature(typed)
        if (read.kind === 'nothing') return
        if (read.kind === 'wrong' || read.value < -60 || read.value > 220) {
          setWrong('Write what the probe shows, from −60 to 220 °C.')
          return
        }
        setTyped('')
        setWrong(null)
        onSay({ what: 'read', c: read.value, by: 'hand' })
      }}
    >
      <p className="text-title text-ink2">
        {last ? `it was, at ${clock(new Date(last.at)).time}` : 'no temperature read yet'}
      </p>
      {last && <p className="font-head text-[60px] leading-none font-[720]">{degrees(last.c)}</p>}
      <label className="mt-2 flex items-center gap-2 text-lead">
        now
        <input
          inputMode="decimal"
          autoComplete="off"
          className={`h-12 w-24 rounded-xl border-2 bg-enamel px-2 text-right text-title font-[640] ${wrong ? 'border-hot' : 'border-line2'}`}
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value)
            setWrong(null)
          }}
        />
        °C
        <Button className="min-h-12" type="submit">
          Read
        </Button>
      </label>
      {wrong && (
        <p role="alert" className="text-hot">
          {wrong}
        </p>
      )}
    </form>
  )
}
