import { scaleLinear, scaleLog } from 'd3-scale'
import type { Assessment } from '../../api/client'

/** Stiffness words of the map, from the loosest; yield stress at the foot of each, Pa. */
export const ZONES = [
  { word: 'runs', from: 0, says: 'under 5 Pa' },
  { word: 'ribbons', from: 5, says: '5–40 Pa' },
  { word: 'soft', from: 40, says: '40–160 Pa' },
  { word: 'spreads', from: 160, says: '160–2,200 Pa' },
  { word: 'firm', from: 2200, says: 'over 2,200 Pa' },
  { word: 'hard', from: 20_000, says: 'over 20,000 Pa' },
] as const

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
  y: (pascal: number) => number
  temperatures: [number, number]
  pascals: [number, number]
}

const WHOLE: [number, number] = [0, 45]
const LOOSEST_PA = 0.3
const HARDEST_PA = 30_000
/** Width of the close look, K: a drip's opening is only a few degrees wide. */
const CLOSE_K = 8

/** The map's scales: everything, or a close look round the working line. */
export function mapScales(
  box: Box,
  answer: Assessment | undefined,
  temperature: number,
  close: boolean,
): MapScales {
  const temperatures: [number, number] = close ? closeRange(temperature) : WHOLE
  const pascals =
    close && answer ? pascalRange(answer, temperatures) : ([LOOSEST_PA, HARDEST_PA] as [number, number])
  const x = scaleLinear().domain(temperatures).range([box.left, box.right])
  const y = scaleLog().domain(pascals).range([box.bottom, box.top]).clamp(true)
  return { x: (t) => x(t), y: (pa) => y(Math.max(pa, 1e-3)), temperatures, pascals }
}

function closeRange(temperature: number): [number, number] {
  const from = Math.min(WHOLE[1] - CLOSE_K, Math.max(WHOLE[0], Math.round(temperature) - CLOSE_K / 2))
  return [from, from + CLOSE_K]
}

function pascalRange(answer: Assessment, [from, to]: [number, number]): [number, number] {
  const seen = answer.sweep.filter((point) => point.temperature_c >= from && point.temperature_c <= to)
  const low = Math.min(
    ...seen.map((p) => Math.min(p.yield_stress_pa.low, p.window_pa[0] ?? p.yield_stress_pa.low)),
  )
  const high = Math.max(
    ...seen.map((p) => Math.max(p.yield_stress_pa.high, p.window_pa[1] ?? p.yield_stress_pa.high)),
  )
  return [Math.max(LOOSEST_PA, low / 1.6), Math.min(HARDEST_PA, high * 1.6)]
}
