import { useId, useRef } from 'react'
import type { KeyboardEvent, Ref } from 'react'
import type { StackAnswer } from '../../api/client'
import { useSize } from '../../lib/hooks'
import { Callouts, Dimensions } from './Dimensions'
import { callouts } from './geometry'
import type { Frame } from './geometry'
import { TierDrawing } from './TierDrawing'

interface DrawingProps {
  answer: StackAnswer
  selected: string | null
  onSelect: (path: string) => void
  /** How many times as large as it fits. */
  zoom: number
  /** Across the board, mm; as wide as the cake takes when none. */
  board: number | null | undefined
  /** Width on paper, where nothing can be measured. */
  fixed?: number
  ref?: Ref<SVGSVGElement>
}

const GUTTER = { left: 176, right: 118, top: 52, bottom: 56 }
/** Room for one callout, and the least height of the drawing. */
const CALLOUT = 38
const LEAST = 340
/** One millimetre is never drawn larger than this. */
const LARGEST = 3.4

/** The cake to scale: its left half cut, its right half from outside. Everything in it comes from the build. */
export function Drawing({ answer, selected, onSelect, zoom, board, fixed, ref }: DrawingProps) {
  const holder = useRef<HTMLDivElement>(null)
  const measured = useSize(holder)
  const width = fixed ?? measured.width
  const id = useId()
  const named = callouts(answer.tiers, answer.places)
  const drips = answer.places.filter((place) => place.kind === 'drip')
  const wide = Math.max(answer.width_mm + 24, board ?? 0, 30)
  const tall = Math.max(answer.height_mm + 12, 20)
  const room = Math.max(160, width - GUTTER.left - GUTTER.right)
  const most = Math.max(LEAST, Math.min(460, named.length * CALLOUT))
  const fit = Math.min(room / wide, (most - 12) / tall, LARGEST)
  const scale = fit * zoom
  const drawnWidth = Math.max(width, GUTTER.left + GUTTER.right + wide * scale)
  const drawnHeight =
    Math.max(tall * scale, Math.min(named.length, 16) * CALLOUT) + GUTTER.top + GUTTER.bottom
  const middle = GUTTER.left + (drawnWidth - GUTTER.left - GUTTER.right) / 2
  const base = drawnHeight - GUTTER.bottom
  const frame: Frame = { x: (mm) => middle + mm * scale, y: (mm) => base - mm * scale, scale }

  const move = (event: KeyboardEvent) => {
    const at = answer.places.findIndex((place) => place.path === selected)
    const step = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key]
    const to =
      event.key === 'Home'
        ? 0
        : event.key === 'End'
          ? answer.places.length - 1
          : step && at < 0
            ? 0
            : at + (step ?? 0)
    if (step === undefined && event.key !== 'Home' && event.key !== 'End') return
    event.preventDefault()
    const place = answer.places[Math.max(0, Math.min(answer.places.length - 1, to))]
    if (place) onSelect(place.path)
  }

  return (
    <div ref={holder} className="min-w-0">
      <div
        role="listbox"
        tabIndex={0}
        aria-label="Places of the cake, from the board up. Arrow keys go from one to the next."
        aria-activedescendant={selected ? `${id}-${selected}` : undefined}
        className="max-h-[78vh] overflow-auto rounded-lg"
        onKeyDown={move}
      >
        <div className="sr-only">
          {answer.places.map((place) => (
            <div
              key={place.path}
              id={`${id}-${place.path}`}
              role="option"
              aria-selected={place.path === selected}
            >
              Tier {place.tier + 1}: {place.words}
              {place.name ? `, ${place.name}` : ', not chosen yet'}
              {place.standing === 'trouble' ? ', does not hold' : ''}
            </div>
          ))}
        </div>
        {width > 0 && (
          <svg
            ref={ref}
            width={drawnWidth}
            height={drawnHeight}
            viewBox={`0 0 ${drawnWidth} ${drawnHeight}`}
            aria-hidden="true"
            className="block"
          >
            <Patterns />
            <Board frame={frame} wide={board ?? answer.width_mm + 24} base={base} width={drawnWidth} />
            {answer.tiers.map((tier, at) => (
              <TierDrawing
                key={at}
                frame={frame}
                tier={tier}
                above={answer.tiers[at + 1]}
                places={answer.places.filter((place) => place.tier === at)}
                hole={holeOf(answer, at)}
                selected={selected}
                onSelect={onSelect}
              />
            ))}
            <line
              x1={frame.x(0)}
              x2={frame.x(0)}
              y1={frame.y(answer.height_mm) - 14}
              y2={base + 12}
              stroke="var(--ink)"
              strokeWidth="1.4"
              strokeDasharray="6 5"
            />
            <Callouts
              frame={frame}
              named={named}
              left={12}
              top={22}
              bottom={base - 8}
              selected={selected}
              onSelect={onSelect}
            />
            <Dimensions frame={frame} answer={answer} drips={drips} right={drawnWidth} onSelect={onSelect} />
          </svg>
        )}
      </div>
    </div>
  )
}

/** Across the hole of a ring, mm. */
function holeOf(answer: StackAnswer, at: number): number {
  const outline = answer.cuts.find((cut) => cut.tier === at)?.outline
  return outline?.shape === 'round' ? outline.hole_mm : 0
}

function Board({ frame, wide, base, width }: { frame: Frame; wide: number; base: number; width: number }) {
  const half = (wide / 2) * frame.scale
  return (
    <g>
      <line x1={12} x2={width - 40} y1={base + 14} y2={base + 14} stroke="var(--line2)" />
      <rect
        x={frame.x(0) - half}
        y={base}
        width={2 * half}
        height={13}
        rx={4}
        fill="var(--enamel)"
        stroke="var(--rim)"
        strokeWidth="2.4"
      />
    </g>
  )
}

/** Crumb and syrup, drawn once. */
function Patterns() {
  return (
    <defs>
      <pattern id="crumb" width="26" height="14" patternUnits="userSpaceOnUse">
        <path
          d="M3 4h4M14 2.5h3M21 7h3.5M8 9.5h3M17 11.5h4M2 12h2"
          stroke="#000"
          strokeWidth="1.5"
          opacity="0.22"
          strokeLinecap="round"
        />
      </pattern>
      <pattern id="wet" width="9" height="8" patternUnits="userSpaceOnUse">
        <path d="M2 2h1M6.5 5.5h1M1 7h1" stroke="#fff" strokeWidth="1" opacity="0.35" strokeLinecap="round" />
      </pattern>
    </defs>
  )
}
