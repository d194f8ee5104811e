import type { MeasuredPoint } from '../../api/client'

/** Outlines of marks round 0, about 12 wide: families are told apart by shape, never by colour alone. */
const SHAPES = [
  'M-6 0a6 6 0 1 0 12 0a6 6 0 1 0-12 0z',
  'M-5.5-5.5h11v11h-11z',
  'M0-7L6.5 5.5h-13z',
  'M0-7.5L7 0 0 7.5-7 0z',
  'M0 7L-6.5-5.5h13z',
  'M-2.3-6.5h4.6v4.2h4.2v4.6H2.3v4.2h-4.6V2.3h-4.2v-4.6h4.2z',
  'M-7-3.5h14v7h-14z',
  'M-3.5-7h7v14h-7z',
  'M0-7.5L2-2h5.5L3 1.5 4.8 7 0 3.6-4.8 7-3 1.5-7.5-2H-2z',
] as const

export interface Mark {
  family: string
  word: string
  path: string
}

/** A shape for each family of some points, in the order in which they first come. */
export function marksOf(points: readonly MeasuredPoint[]): Map<string, Mark> {
  const marks = new Map<string, Mark>()
  for (const own of points) {
    if (marks.has(own.family)) continue
    const path = SHAPES[marks.size % SHAPES.length] ?? SHAPES[0]
    marks.set(own.family, { family: own.family, word: own.family_word, path })
  }
  return marks
}

/** Whole decades round some numbers, and 1, 2 and 5 of each within them. */
export function decades(values: readonly number[]): { domain: [number, number]; ticks: number[] } {
  const fit = values.filter((own) => Number.isFinite(own) && own > 0)
  const low = Math.log10(Math.min(...fit, Number.MAX_VALUE))
  const high = Math.log10(Math.max(...fit, Number.MIN_VALUE))
  if (fit.length === 0) return { domain: [1, 10], ticks: [1, 2, 5, 10] }
  const steps = [1, 2, 5]
  const all: number[] = []
  for (let power = Math.floor(low) - 1; power <= Math.ceil(high) + 1; power += 1) {
    all.push(...steps.map((step) => step * 10 ** power))
  }
  const from = all.filter((own) => own <= 10 ** low * 0.95).at(-1) ?? 10 ** Math.floor(low)
  const to = all.find((own) => own >= 10 ** high * 1.05) ?? 10 ** Math.ceil(high)
  const inside = all.filter((own) => own >= from && own <= to)
  // Where there are many, the tens alone carry a number.
  const ticks = inside.length > 8 ? inside.filter((own) => Math.abs(Math.log10(own) % 1) < 1e-9) : inside
  return { domain: [from, to], ticks }
}
