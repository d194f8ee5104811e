import type { Phase, PhaseShares } from '../api/client'

/** The fixed order, everywhere. */
export const PHASES = ['fat', 'sugar', 'water', 'dry', 'setting'] as const satisfies readonly Phase[]

export const PHASE_WORD: Record<Phase | 'alcohol', string> = {
  fat: 'Fat',
  sugar: 'Sugar',
  water: 'Water',
  dry: 'Dry',
  setting: 'Setting',
  alcohol: 'Alcohol',
}

/** Patterns that say the same as the colours. Drawn once, used by address. */
export function PhasePatterns() {
  const ink = 'var(--phase-text)'
  return (
    <svg width="0" height="0" aria-hidden="true" className="absolute">
      <defs>
        <pattern id="phase-fat" width="8" height="8" patternUnits="userSpaceOnUse">
          <rect width="8" height="8" fill="var(--fat)" />
        </pattern>
        <pattern id="phase-sugar" width="7" height="7" patternUnits="userSpaceOnUse">
          <rect width="7" height="7" fill="var(--sugar)" />
          <rect x="1" y="1" width="1.6" height="1.6" fill={ink} opacity="0.35" />
          <rect x="4.5" y="4.5" width="1.6" height="1.6" fill={ink} opacity="0.35" />
        </pattern>
        <pattern id="phase-water" width="12" height="7" patternUnits="userSpaceOnUse">
          <rect width="12" height="7" fill="var(--water)" />
          <path d="M0 4.5q3-3 6 0t6 0" fill="none" stroke={ink} strokeWidth="0.9" opacity="0.38" />
        </pattern>
        <pattern id="phase-alcohol" width="7" height="7" patternUnits="userSpaceOnUse">
          <rect width="7" height="7" fill="var(--water)" />
          <path d="M0 0L7 7M7 0L0 7" fill="none" stroke={ink} strokeWidth="0.8" opacity="0.42" />
        </pattern>
        <pattern id="phase-dry" width="6" height="6" patternUnits="userSpaceOnUse">
          <rect width="6" height="6" fill="var(--dry)" />
          <path d="M-1 7L7-1M-1 1L1-1M5 7l2-2" stroke="#fff" strokeWidth="0.8" opacity="0.3" />
        </pattern>
        <pattern id="phase-air" width="8" height="8" patternUnits="userSpaceOnUse">
          <path d="M-1 9L9-1M-1 1L1-1M7 9l2-2" stroke="var(--ink2)" strokeWidth="0.8" opacity="0.45" />
        </pattern>
        <pattern id="phase-setting" width="7" height="7" patternUnits="userSpaceOnUse">
          <rect width="7" height="7" fill="var(--setting)" />
          <path d="M0 0h7M0 0v7" stroke="#fff" strokeWidth="0.8" opacity="0.45" />
        </pattern>
      </defs>
    </svg>
  )
}

export function phaseFill(phase: Phase | 'alcohol'): string {
  return `url(#phase-${phase})`
}

export interface StackedPhase {
  phase: Phase
  /** Where it starts and how long it is, in drawn units. */
  start: number
  size: number
}

/** The phases laid end to end in the fixed order; `scale` is drawn units per share. */
export function stacked(shares: PhaseShares, scale: number): StackedPhase[] {
  return PHASES.map((phase, k) => ({
    phase,
    start: PHASES.slice(0, k).reduce((sum, before) => sum + shares[before], 0) * scale,
    size: shares[phase] * scale,
  }))
}

interface TinyBarProps {
  /** Shares or grams. */
  shares: PhaseShares
  /** What the full width stands for, in the same unit. */
  full: number
  width: number
  height?: number
}

/** A small phase bar. Rows of one formula share one gram scale, so they add up to the balance. */
export function TinyBar({ shares, full, width, height = 13 }: TinyBarProps) {
  const parts = stacked(shares, full > 0 ? (width - 2) / full : 0)
  const end = parts.at(-1)
  const x = end ? end.start + end.size : 0
  if (x <= 0) return <svg width={width} height={height} aria-hidden="true" />
  const total = Math.max(x, 1.5)
  return (
    <svg width={width} height={height} aria-hidden="true" className="block">
      {parts.map(({ phase, start, size }) => (
        <rect key={phase} x={1 + start} y={1} width={size} height={height - 2} fill={phaseFill(phase)} />
      ))}
      <rect x={0.5} y={0.5} width={total + 1} height={height - 1} rx={2} fill="none" stroke="var(--ink)" />
    </svg>
  )
}
