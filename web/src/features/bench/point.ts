import type { Assessment, Point } from '../../api/client'

/** The judged point at a temperature: the one asked for, else the nearest of the sweep. */
export function pointAt(answer: Assessment, temperature: number): Point | undefined {
  if (answer.at.temperature_c === temperature) return answer.at
  const nearest = Math.round(temperature / answer.sweep_step_k)
  return answer.sweep[Math.min(answer.sweep.length - 1, Math.max(0, nearest))]
}

/** Whether the verdict is a good one. */
export function isGood(point: Point): boolean {
  return point.outcome === 'inside' && !point.unknown
}

/** How likely it comes out right, in a sentence; none where nothing is known. */
export function comesOut(point: Point): string {
  return point.unknown ? '' : `Comes out right ${point.chance_words}.`
}

/** Stretches of temperature in which it stays right for a while only. */
export function whileSpans(answer: Assessment): { from: number; to: number }[] {
  const half = answer.sweep_step_k / 2
  const spans: { from: number; to: number }[] = []
  for (const point of answer.sweep) {
    if (point.stands !== 'briefly' || point.outcome !== 'inside') continue
    const last = spans.at(-1)
    if (last && point.temperature_c - half <= last.to + 1e-6) last.to = point.temperature_c + half
    else spans.push({ from: point.temperature_c - half, to: point.temperature_c + half })
  }
  return spans
}
