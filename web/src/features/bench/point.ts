import type { Assessment, Point } from '../../api/client'

/** The judged point at a temperature: the one asked for, else the nearest of the sweep. */
export function pointAt(answer: Assessment, temperature: number): Point | undefined {
  if (answer.at.temperature_c === temperature) return answer.at
  const nearest = Math.round(temperature / answer.sweep_step_k)
  return answer.sweep[Math.min(answer.sweep.length - 1, Math.max(0, nearest))]
}

/** Whether the verdict is a good one. */
export function isGood(point: Point): boolean {
  return point.outcome === 'inside'
}
