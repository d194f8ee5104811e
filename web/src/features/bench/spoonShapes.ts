/**
 * The Spoon's outlines from two numbers. Drawing rules, fitted by eye at 190 × 260:
 * the mound and the break follow yield stress, width, folds and tilt follow viscosity.
 */
export interface SpoonShapes {
  /** Height of the surface it falls on. */
  ground: number
  /** Behind the spoon: stream, pile, dollop. */
  mass: string[]
  /** On the spoon. */
  front: string[]
  coils: string[]
  bowl: string
  back: string
  rim: string
  turn: string
  gleam: string | null
}

const GROUND = 238
const LIP = { x: 78, y: 78 }
const HELD_FROM_PA = 260
const BREAKS_FROM_PA = 55

const clamp = (x: number) => Math.min(1, Math.max(0, x))
const n = (x: number) => x.toFixed(1)

export function spoonShapes(yieldStress: number, viscosity: number, density: number): SpoonShapes {
  const a = clamp((Math.log10(viscosity) + 1.3) / 3.6)
  const b = clamp(Math.log10(yieldStress + 1) / 2.7)
  // Height of paste it can hold up, mm.
  const slump = (yieldStress / (density * 9.81)) * 1000
  if (yieldStress >= HELD_FROM_PA) return held(slump)
  const tilt = 14 + 58 * Math.max(0.65 * a, b)
  const spoon = {
    ground: GROUND,
    bowl: 'M0 0C10 26 58 30 88 2Z',
    back: 'M88 2C104 -6 124 -4 190 -4M84 7C104 2 126 3 190 2',
    rim: 'M0 0L88 2C104 -5 124 -4 190 -4',
    turn: `translate(${LIP.x} ${LIP.y}) rotate(${n(-tilt)})`,
  }
  const rise = 5 + 13 * b
  const mound = onSpoon(tilt, rise)
  return yieldStress >= BREAKS_FROM_PA
    ? { ...spoon, ...dollop(slump, mound) }
    : { ...spoon, ...stream(viscosity, slump, a, b, mound) }
}

/** The mound that lies along the rim, in the drawing's own frame. */
function onSpoon(tilt: number, rise: number): string {
  const angle = (-tilt * Math.PI) / 180
  const at = (x: number, y: number) =>
    `${n(LIP.x + x * Math.cos(angle) - y * Math.sin(angle))} ${n(LIP.y + x * Math.sin(angle) + y * Math.cos(angle))}`
  return `M${at(-3, 3)}C${at(-2, -rise * 0.8)} ${at(26, -rise * 1.25)} ${at(48, -rise)}C${at(64, -rise * 0.8)} ${at(78, -3)} ${at(86, 1)}L${at(0, 2)}Z`
}

function stream(viscosity: number, slump: number, a: number, b: number, mound: string) {
  const half = 1.6 + 13 * Math.pow(Math.max(0.8 * a, b), 1.5) + 2 * a
  const thinning = 9 + 221 * a * a
  const pile = Math.min(40, 3 + 2.9 * slump * 2.3)
  const top = LIP.y - 2
  const foot = GROUND - pile * 0.7
  const fall = foot - top
  const folds = 19 * Math.max(0, 1 - Math.abs(Math.log10(viscosity) - 0.65) / 1.25)
  const centre = LIP.x - half * 0.75
  const left: string[] = []
  const right: string[] = []
  const steps = 44
  for (let k = 0; k <= steps; k++) {
    const z = (fall * k) / steps
    const w = half / Math.sqrt(1 + z / thinning)
    const low = clamp((z / fall - 0.72) / 0.28)
    const sway = folds * low * Math.sin(low * 9.4)
    left.push(`${n(centre + sway - w)} ${n(top + z)}`)
    right.unshift(`${n(centre + sway + w)} ${n(top + z)}`)
  }
  const drops = viscosity < 0.06
  const breakAt = Math.round(steps * 0.55)
  const body = drops ? [...left.slice(0, breakAt), ...right.slice(steps - breakAt + 1)] : [...left, ...right]
  const mass = [`M${body.join('L')}Z`]
  if (drops) {
    for (const share of [0.68, 0.86]) {
      const y = top + fall * share
      mass.push(`M${n(centre - 1.4)} ${n(y)}v12h2.8v-12Z`)
    }
  }
  // A puddle, then coils that stand as high as the yield stress can hold them.
  const spread = 78 - 26 * b
  const coilCount = Math.max(1, Math.min(4, Math.round(pile / 8)))
  const coils: string[] = []
  for (let k = 0; k < coilCount; k++) {
    const rx = spread * (1 - k * 0.24)
    const ry = Math.max(2.4, pile / coilCount / 1.15)
    const cy = GROUND - ry * 0.55 - (k * pile) / (coilCount + 0.6)
    mass.push(k === 0 ? heap(centre, spread, Math.max(3, pile * 0.42)) : ellipse(centre, cy, rx, ry))
    if (pile > 6)
      coils.push(
        `M${n(centre - rx * 0.55)} ${n(cy)}Q${n(centre)} ${n(cy + ry)} ${n(centre + rx * 0.55)} ${n(cy)}`,
      )
  }
  const gleam = half > 4 ? `M${n(centre - half * 0.4)} ${n(top + 22)}v${n(Math.min(44, fall * 0.3))}` : null
  return { mass, front: [mound, join(centre, half)], coils, gleam }
}

/** Where the stream leaves the lip: rounds the corner between mound and stream. */
function join(centre: number, half: number): string {
  const r = half + 3
  return `M${n(centre - half)} ${n(LIP.y + 14)}C${n(centre - half)} ${n(LIP.y - r)} ${n(centre + half)} ${n(LIP.y - r - 2)} ${n(LIP.x + 8)} ${n(LIP.y - 4)}L${n(LIP.x + 4)} ${n(LIP.y + 8)}L${n(centre + half)} ${n(LIP.y + 14)}Z`
}

function dollop(slump: number, mound: string) {
  const drop = Math.min(46, Math.sqrt(3) * slump * 2.3)
  const x = LIP.x - 6
  const y = LIP.y + 6
  const hanging = `M${n(x - 12)} ${n(y - 8)}C${n(x - 14)} ${n(y + drop * 0.5)} ${n(x - 20)} ${n(y + drop * 0.7)} ${n(x - 12)} ${n(y + drop)}Q${n(x)} ${n(y + drop + 11)} ${n(x + 12)} ${n(y + drop)}C${n(x + 20)} ${n(y + drop * 0.7)} ${n(x + 14)} ${n(y + drop * 0.5)} ${n(x + 16)} ${n(y - 10)}Z`
  const high = Math.min(66, 14 + 1.7 * slump * 2.3)
  const wide = 62
  const peak = `M${n(x - wide)} ${GROUND}C${n(x - wide)} ${n(GROUND - high * 0.55)} ${n(x - 26)} ${n(GROUND - high * 0.62)} ${n(x - 8)} ${n(GROUND - high * 0.82)}Q${n(x + 1)} ${n(GROUND - high)} ${n(x + 6)} ${n(GROUND - high - 8)}Q${n(x + 9)} ${n(GROUND - high * 0.8)} ${n(x + 22)} ${n(GROUND - high * 0.62)}C${n(x + 46)} ${n(GROUND - high * 0.5)} ${n(x + wide)} ${n(GROUND - high * 0.3)} ${n(x + wide)} ${GROUND}Z`
  return {
    mass: [peak],
    front: [mound, hanging],
    coils: [
      `M${n(x - wide * 0.62)} ${n(GROUND - high * 0.4)}Q${n(x - 30)} ${n(GROUND - high * 0.62)} ${n(x - 14)} ${n(GROUND - high * 0.66)}`,
    ],
    gleam: `M${n(x - 7)} ${n(y + drop * 0.45)}v${n(drop * 0.3)}`,
  }
}

/** Turned over: the load hangs under it, and the block it came from keeps a clean wall. */
function held(slump: number): SpoonShapes {
  const deep = Math.min(52, 26 + slump * 0.5)
  const wall = Math.min(70, 40 + slump * 0.4)
  const top = GROUND - wall
  const load = `M34 62L120 62C122 ${n(62 + deep * 0.7)} 112 ${n(62 + deep)} 78 ${n(62 + deep)}C44 ${n(62 + deep)} 32 ${n(62 + deep * 0.7)} 34 62Z`
  const block = `M8 ${GROUND}V${n(top + 5)}Q8 ${n(top)} 13 ${n(top)}H52C56 ${n(top + wall * 0.55)} 104 ${n(top + wall * 0.55)} 108 ${n(top)}H161Q166 ${n(top)} 166 ${n(top + 5)}V${GROUND}Z`
  return {
    ground: GROUND,
    mass: [load, block],
    front: [],
    coils: [`M56 ${n(top + 6)}C64 ${n(top + wall * 0.44)} 98 ${n(top + wall * 0.44)} 105 ${n(top + 6)}`],
    bowl: 'M30 62C36 30 116 28 124 60Z',
    back: 'M124 60C138 62 150 68 190 76M118 50C136 54 152 60 190 68',
    rim: 'M30 62L124 60C138 63 152 69 190 76',
    turn: '',
    gleam: null,
  }
}

function heap(centre: number, half: number, high: number): string {
  return `M${n(centre - half)} ${GROUND}C${n(centre - half)} ${n(GROUND - high)} ${n(centre - half * 0.5)} ${n(GROUND - high)} ${n(centre)} ${n(GROUND - high)}S${n(centre + half)} ${n(GROUND - high)} ${n(centre + half)} ${GROUND}Z`
}

function ellipse(cx: number, cy: number, rx: number, ry: number): string {
  return `M${n(cx - rx)} ${n(cy)}a${n(rx)} ${n(ry)} 0 1 0 ${n(2 * rx)} 0a${n(rx)} ${n(ry)} 0 1 0 ${n(-2 * rx)} 0Z`
}
