import { scaleLinear, scaleLog } from 'd3-scale'
import type { Assessment } from '../../api/client'

/** Room for the stiffness words, left of the field. */
export const GUTTER = 112
/** Room for degrees and the handle, under it. */
export const FOOT = 58

export interface Box {
  left: number
  right: number
  top: number
  bottom: number
}

export interface MapScales {
  x: (temperature: number) => number
  y: (value: number) => number
  temperatures: [number, number]
  /** Lowest and highest of the upright axis, Pa or Pa·s. */
  upright: [number, number]
}

const YIELD_PA: [number, number] = [0.3, 30_000]
const VISCOSITY_PA_S: [number, number] = [0.001, 300]
/** Width of the close look, K: a drip's opening is only a few degrees wide. */
const CLOSE_K = 8

/** The map's scales: everything, or a close look round the working line. */
export function mapScales(
  box: Box,
  answer: Assessment | undefined,
  temperature: number,
  close: boolean,
): MapScales {
  const whole: [number, number] = [0, answer?.sweep.at(-1)?.temperature_c ?? 45]
  const limits = answer?.axis === 'viscosity_pa_s' ? VISCOSITY_PA_S : YIELD_PA
  const temperatures = close ? closeRange(temperature, whole[1]) : whole
  const upright = close && answer ? uprightRange(answer, temperatures, limits) : limits
  const x = scaleLinear().domain(temperatures).range([box.left, box.right])
  const y = scaleLog().domain(upright).range([box.bottom, box.top]).clamp(true)
  return { x: (t) => x(t), y: (value) => y(Math.max(value, 1e-4)), temperatures, upright }
}

function closeRange(temperature: number, hottest: number): [number, number] {
  const from = Math.min(hottest - CLOSE_K, Math.max(0, Math.round(temperature) - CLOSE_K / 2))
  return [from, from + CLOSE_K]
}

function uprightRange(
  answer: Assessment,
  [from, to]: [number, number],
  [lowest, highest]: [number, number],
): [number, number] {
  const seen = answer.sweep.filter((point) => point.temperature_c >= from && point.temperature_c <= to)
  const low = Math.min(...seen.map((p) => Math.min(p.on_map.low, p.window_on_map[0] ?? p.on_map.low)))
  const high = Math.max(...seen.map((p) => Math.max(p.on_map.high, p.window_on_map[1] ?? p.on_map.high)))
  return [Math.max(lowest, low / 1.6), Math.min(highest, high * 1.6)]
}
