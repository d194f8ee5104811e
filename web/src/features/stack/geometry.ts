import type { PlaceAnswer, TierAnswer } from '../../api/client'

/** From millimetres above the board and off the middle to the drawing. */
export interface Frame {
  x: (mm: number) => number
  y: (mm: number) => number
  /** Drawn units per millimetre. */
  scale: number
}

/** Half the width of a tier without its coats at a height above its foot, mm. */
export function halfWidth(tier: TierAnswer, height: number): number {
  const profile = tier.profile_mm
  const last = profile.at(-1)
  if (!last) return 0
  for (let k = 1; k < profile.length; k += 1) {
    const [z1 = 0, w1 = 0] = profile[k] ?? []
    const [z0 = 0, w0 = 0] = profile[k - 1] ?? []
    if (height <= z1) return z1 > z0 ? w0 + ((height - z0) / (z1 - z0)) * (w1 - w0) : w1
  }
  return last[1] ?? 0
}

function heights(tier: TierAnswer, from: number, to: number): number[] {
  const inside = tier.profile_mm.map(([z = 0]) => z).filter((z) => z > from && z < to)
  return [from, ...inside, to]
}

/** One side of what lies between two heights above a tier's foot, from the middle out; `grow` mm wider. */
export function half(
  frame: Frame,
  tier: TierAnswer,
  side: -1 | 1,
  from: number,
  to: number,
  grow = 0,
  hole = 0,
): string {
  const foot = tier.z_mm[0] ?? 0
  const edge = heights(tier, from, to).map((z): [number, number] => [
    frame.x(side * Math.max(hole / 2, halfWidth(tier, z) + grow)),
    frame.y(foot + z),
  ])
  const inner = frame.x((side * hole) / 2)
  const points = [[inner, frame.y(foot + from)], ...edge, [inner, frame.y(foot + to)]]
  return `M${points.map(([x = 0, y = 0]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}Z`
}

/** The whole of a tier with coats of `side` and `top` mm, one side of it. */
export function coated(
  frame: Frame,
  tier: TierAnswer,
  side: -1 | 1,
  sideMm: number,
  topMm: number,
  hole = 0,
): string {
  const foot = tier.z_mm[0] ?? 0
  const stands = tier.profile_mm.length === 2
  const inside = heights(tier, 0, tier.inner_mm).map((z): [number, number] => [halfWidth(tier, z), z])
  const widest = Math.max(1, ...inside.map(([w]) => w))
  // What is straight has a wall and a lid; what is round above has its coat all over the curve.
  const edge = inside.map(([w, z]): [number, number] =>
    stands ? [w + sideMm, z] : [w * (1 + sideMm / widest), z * (1 + topMm / Math.max(1, tier.inner_mm))],
  )
  const top: [number, number][] = stands ? [[(edge.at(-1) ?? [0, 0])[0], tier.inner_mm + topMm]] : []
  const points = [[hole / 2, 0], ...edge, ...top, [hole / 2, tier.inner_mm + topMm]]
  return `M${points
    .map(([x = 0, z = 0]) => `${frame.x(side * x).toFixed(1)} ${frame.y(foot + z).toFixed(1)}`)
    .join('L')}Z`
}

/** A tier as the hollow of its case. */
export function hollowOf(tier: TierAnswer): TierAnswer {
  return tier.hollow_mm ? { ...tier, profile_mm: tier.hollow_mm } : tier
}

/** Pieces of a pile as they are seen from the front: middle and foot of each, mm; the top row last. */
export function piled(tier: TierAnswer): [number, number][] {
  const [high = 0, wide = 0] = tier.piece_mm
  const rows = [...(tier.rows ?? [])].reverse()
  return rows.flatMap((count, row) => {
    const across = count < 2 ? 0 : (count * wide) / Math.PI
    const seen = Math.max(1, Math.round(across / wide) + (count > 1 ? 1 : 0))
    const foot = (tier.z_mm[0] ?? 0) + row * high * 0.85
    return Array.from({ length: seen }, (_, k): [number, number] => [
      seen === 1 ? 0 : -across / 2 + (across * k) / (seen - 1),
      foot,
    ])
  })
}

/** The walls and the bottom of a vessel, open at its rim. */
export function vessel(frame: Frame, tier: TierAnswer, wall: number): string {
  const foot = tier.z_mm[0] ?? 0
  const edge = heights(tier, 0, wall).map((z): [number, number] => [halfWidth(tier, z), z])
  const points = [...edge.map(([w, z]): [number, number] => [-w, z]).reverse(), ...edge]
  return `M${points.map(([x, z]) => `${frame.x(x).toFixed(1)} ${frame.y(foot + z).toFixed(1)}`).join('L')}`
}

/** A box on the left half: from `inner` to `outer` mm off the middle. */
export function box(frame: Frame, inner: number, outer: number, from: number, to: number): string {
  const [x0, x1] = [frame.x(-outer), frame.x(-inner)]
  const [y0, y1] = [frame.y(to), frame.y(from)]
  return `M${x0.toFixed(1)} ${y0.toFixed(1)}H${x1.toFixed(1)}V${y1.toFixed(1)}H${x0.toFixed(1)}Z`
}

/** The wet part of a sponge: down to its tide mark, which is never a straight line. */
export function tide(
  frame: Frame,
  tier: TierAnswer,
  place: PlaceAnswer,
  hole = 0,
): { area: string; mark: string } | null {
  const depth = place.depth_mm ?? 0
  const [from = 0, to = 0] = place.z_mm
  if (depth <= 0.2 || to <= from) return null
  const foot = tier.z_mm[0] ?? 0
  const rim = place.dry_rim_mm ?? 0
  const edge = Math.max(1, halfWidth(tier, to - foot) - rim)
  const level = Math.max(from, to - depth)
  const inner = Math.min(edge - 1, hole / 2 + (hole > 0 ? rim : 0))
  const steps = Math.max(4, Math.round((edge - inner) / 7))
  const wave = Array.from({ length: steps + 1 }, (_, k) => {
    const x = -edge + ((edge - inner) * k) / steps
    const up = k % 2 === 0 ? 0.5 : -0.5
    return [frame.x(x), frame.y(Math.min(to, Math.max(from, level + up * Math.min(1.6, depth))))] as const
  })
  const line = wave.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')
  return {
    area: `M${frame.x(-edge).toFixed(1)} ${frame.y(to).toFixed(1)}L${line}L${frame.x(-inner).toFixed(1)} ${frame.y(to).toFixed(1)}Z`,
    mark: `M${line}`,
  }
}

/** One drip: from the edge down, with a round end. */
export function dripPath(frame: Frame, x: number, top: number, length: number, width: number): string {
  const r = (width / 2) * frame.scale
  const [cx, y0] = [frame.x(x), frame.y(top)]
  const y1 = Math.max(y0 + r, frame.y(top - length))
  return `M${(cx - r).toFixed(1)} ${y0.toFixed(1)}V${(y1 - r).toFixed(1)}A${r.toFixed(1)} ${r.toFixed(1)} 0 0 0 ${(cx + r).toFixed(1)} ${(y1 - r).toFixed(1)}V${y0.toFixed(1)}Z`
}

/** A spiral from the middle out, with so many millimetres from turn to turn. */
export function spiral(frame: Frame, middle: number, radius: number, pitch: number): string {
  const turns = radius / Math.max(pitch, 1)
  const steps = Math.max(8, Math.ceil(turns * 40))
  const points = Array.from({ length: steps + 1 }, (_, k) => {
    const angle = (2 * Math.PI * turns * k) / steps
    const r = (radius * k) / steps
    return `${frame.x(r * Math.cos(angle)).toFixed(1)} ${frame.y(middle + r * Math.sin(angle)).toFixed(1)}`
  })
  return `M${points.join('L')}`
}

export interface Callout {
  path: string
  title: string
  under: string
  /** Where its dot is, mm off the middle and above the board. */
  at: [number, number]
}

const CUT = ['case', 'film', 'sponge', 'soak', 'filling', 'insert', 'coat', 'crumb_coat', 'glaze', 'border']

/** What is named beside the drawing: places alike are named once over all tiers, with how much they take. */
export function callouts(tiers: TierAnswer[], places: PlaceAnswer[]): Callout[] {
  const groups = new Map<string, PlaceAnswer[]>()
  for (const place of places.filter((each) => CUT.includes(each.kind))) {
    const thick = place.kind === 'soak' ? '' : place.thickness_mm.toFixed(1)
    const key = `${place.kind}|${place.name ?? ''}|${thick}`
    groups.set(key, [...(groups.get(key) ?? []), place])
  }
  return [...groups.values()].flatMap((group, k) => {
    // Neighbours of the list point into different tiers where they can: their lines cross less.
    const place = group[Math.min(group.length - 1, Math.floor(((k % 3) * group.length) / 3))] ?? group[0]
    const tier = place && tiers[place.tier]
    if (!place || !tier) return []
    const total = group.reduce((sum, each) => sum + each.grams, 0)
    const count = tier.count
    const alike = group.every((each) => Math.abs(each.grams - place.grams) < 0.005)
    const much =
      count > 1
        ? `${gramsOf(total / count)} g in each of ${count}`
        : group.length === 1
          ? `${gramsOf(total)} g`
          : alike
            ? `${group.length} of ${gramsOf(place.grams)} g`
            : `${gramsOf(total)} g in ${group.length}`
    const dam = place.words.endsWith('in a dam') ? ', dammed' : ''
    const thick =
      place.kind === 'soak'
        ? `${(place.depth_mm ?? 0).toFixed(0)} mm deep`
        : `${millimetres(place.thickness_mm)} mm`
    return [
      {
        path: place.path,
        title: `${WORD[place.kind] ?? ''} ${thick}`,
        under: `${much}${dam}`,
        at: dot(tier, place),
      },
    ]
  })
}

const WORD: Partial<Record<PlaceAnswer['kind'], string>> = {
  case: 'Case',
  film: 'Film',
  sponge: 'Sponge',
  soak: 'Soak',
  filling: 'Filling',
  insert: 'Insert',
  coat: 'Coat',
  crumb_coat: 'Crumb coat',
  glaze: 'Glaze',
  border: 'Border',
}

function gramsOf(value: number): string {
  return value >= 20
    ? value.toLocaleString('en', { maximumFractionDigits: 0 })
    : value.toFixed(1).replace(/\.0$/, '')
}

export function millimetres(value: number): string {
  return value >= 10 ? value.toFixed(0) : value.toFixed(1).replace(/\.0$/, '')
}

function dot(tier: TierAnswer, place: PlaceAnswer): [number, number] {
  const foot = tier.z_mm[0] ?? 0
  const [from = 0, to = 0] = place.z_mm
  const middle = (from + to) / 2
  const at = (height: number) => halfWidth(tier, Math.max(0, height))
  if (place.kind === 'case') {
    const height = (to - from) * 0.35
    return [-(at(height) - Math.min(place.thickness_mm / 2, at(height) / 2)), foot + height]
  }
  if (place.kind === 'film') return [-(at((to - from) / 2) - 4), foot + (to - from) * 0.6]
  if (tier.rolled) {
    // Turn by turn from the left: sponge outermost.
    const share = { sponge: 0.94, filling: 0.62, soak: 0.4 }[place.kind as 'sponge' | 'filling' | 'soak'] ?? 1
    return [-(tier.inner_mm / 2) * share, foot + tier.side_mm + tier.inner_mm * (0.4 + 0.1 * share)]
  }
  switch (place.kind) {
    case 'coat':
    case 'glaze': {
      const height = tier.inner_mm * 0.8
      return [-(at(height) + tier.side_mm - Math.min(place.thickness_mm, tier.side_mm) / 2), foot + height]
    }
    case 'crumb_coat': {
      const height = tier.inner_mm * 0.62
      return [-(at(height) + place.thickness_mm / 2), foot + height]
    }
    case 'border':
      return [-(at(0) + tier.side_mm + place.thickness_mm / 3), foot + place.thickness_mm / 3]
    case 'soak':
      return [-(at(middle - foot) * 0.45), to - Math.min(place.depth_mm ?? 0, to - from) / 2]
    case 'insert':
      return [-(place.across_mm / 4), middle]
    case 'sponge':
      return [-(at(middle - foot) * 0.62), from + (to - from) * 0.3]
    default:
      return [-(at(middle - foot) * 0.55), middle]
  }
}
