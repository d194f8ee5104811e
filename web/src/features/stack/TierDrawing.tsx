import type { PlaceAnswer, TierAnswer } from '../../api/client'
import { lifted } from '../../lib/mixture'
import { box, coated, dripPath, half, halfWidth, hollowOf, piled, spiral, tide, vessel } from './geometry'
import type { Frame } from './geometry'

interface TierDrawingProps {
  frame: Frame
  tier: TierAnswer
  above: TierAnswer | undefined
  places: PlaceAnswer[]
  /** Across the hole of a ring, mm. */
  hole: number
  selected: string | null
  onSelect: (path: string) => void
}

/** Not chosen yet: an open hatch. */
const OPEN = 'url(#phase-air)'
/** Width of a drip on the face, mm. */
const DRIP = 6

function colour(place: PlaceAnswer | undefined): string {
  return place?.tint ? lifted(place.tint) : OPEN
}

/** One tier: coats behind, layers before them on the cut half, the outermost coat on the other. */
export function TierDrawing({ frame, tier, above, places, hole, selected, onSelect }: TierDrawingProps) {
  const of = (kind: PlaceAnswer['kind']) => places.filter((place) => place.kind === kind)
  const coats = (['glaze', 'coat', 'crumb_coat'] as const).flatMap((kind) => of(kind).slice(0, 1))
  const outermost = coats[0]
  const layers = places.filter((place) => ['sponge', 'filling', 'dam', 'insert'].includes(place.kind))
  const [shell, film] = [of('case')[0], of('film')[0]]
  const inside = hollowOf(tier)
  const foot = tier.z_mm[0] ?? 0
  const top = tier.z_mm[1] ?? 0
  const walls =
    tier.brim_mm != null && outermost === undefined && places.every((place) => place.kind !== 'case')
  const edge = (place: PlaceAnswer | undefined) => ({
    stroke: place && place.path === selected ? 'var(--rim)' : 'var(--ink)',
    strokeWidth: place && place.path === selected ? 3 : 0.8,
  })
  const pick = (place: PlaceAnswer | undefined) =>
    place ? { onClick: () => onSelect(place.path), style: { cursor: 'pointer' } } : {}

  if (tier.rolled) {
    return <Roll frame={frame} tier={tier} places={places} outermost={outermost} edge={edge} pick={pick} />
  }

  // From outside in: each coat less what lies over it.
  const shells = coats.map((coat, k) => ({
    coat,
    side: coats.slice(k).reduce((sum, each) => sum + each.thickness_mm, 0),
    lid: (coat.z_mm[1] ?? 0) - (coat.z_mm[0] ?? 0) - tier.inner_mm,
  }))
  const layer = (place: PlaceAnswer, to: -1 | 1) => {
    const [z0 = 0, z1 = 0] = place.z_mm
    const shape =
      place.kind === 'insert'
        ? mirrored(frame, 0, place.across_mm / 2, z0, z1, to)
        : place.kind === 'dam'
          ? mirrored(
              frame,
              halfWidth(tier, z0 - foot) - (place.width_mm ?? 10),
              halfWidth(tier, z0 - foot),
              z0,
              z1,
              to,
            )
          : half(frame, inside, to, z0 - foot, z1 - foot, 0, hole)
    return (
      <g key={`${place.path}${to}`} {...pick(place)}>
        <path d={shape} fill={colour(place)} {...edge(place)} />
        {place.bake && <path d={shape} fill="url(#crumb)" pointerEvents="none" />}
      </g>
    )
  }
  return (
    <g>
      {shells.map(({ coat, side, lid }) => (
        <path
          key={coat.path}
          d={coated(frame, tier, -1, side, lid, hole)}
          fill={colour(coat)}
          {...edge(coat)}
          {...pick(coat)}
        />
      ))}
      {tier.rows && (
        <Pile
          frame={frame}
          tier={tier}
          colour={colour(shell ?? layers[0])}
          place={of('pile')[0]}
          pick={pick}
        />
      )}
      {shell &&
        ([-1, 1] as const).map((side) => (
          <g key={`${shell.path}${side}`} {...pick(shell)}>
            <path
              d={half(frame, tier, side, 0, (shell.z_mm[1] ?? 0) - foot)}
              fill={colour(shell)}
              {...edge(shell)}
            />
            <path
              d={half(frame, tier, side, 0, (shell.z_mm[1] ?? 0) - foot)}
              fill="url(#crumb)"
              pointerEvents="none"
            />
          </g>
        ))}
      {film && tier.hollow_mm && (
        <path
          d={lining(frame, tier)}
          fill="none"
          stroke={film.path === selected ? 'var(--rim)' : colour(film)}
          strokeWidth={Math.max(2.5, film.thickness_mm * frame.scale * 2)}
          {...pick(film)}
        />
      )}
      {layers.map((place) => layer(place, -1))}
      {of('soak').map((place) => {
        const wet = tide(frame, tier, place, hole)
        return (
          wet && (
            <g key={place.path} {...pick(place)}>
              <path d={wet.area} fill="#3a1c0a" opacity="0.28" />
              <path d={wet.area} fill="url(#wet)" />
              <path
                d={wet.mark}
                fill="none"
                stroke={place.path === selected ? 'var(--rim)' : '#3a1c0a'}
                strokeWidth={place.path === selected ? 3 : 1}
                opacity={place.path === selected ? 1 : 0.6}
              />
            </g>
          )
        )
      })}
      {tier.dowels && <Dowels frame={frame} tier={tier} above={above} />}
      {outermost ? (
        <path
          d={coated(frame, tier, 1, tier.side_mm, tier.top_mm, 0)}
          fill={colour(outermost)}
          {...edge(outermost)}
          {...pick(outermost)}
        />
      ) : (
        layers.filter((place) => place.kind !== 'insert').map((place) => layer(place, 1))
      )}
      {outermost && tier.profile_mm.length === 2 && (
        <rect
          x={frame.x((halfWidth(tier, 0) + tier.side_mm) * 0.8)}
          y={frame.y(top)}
          width={(halfWidth(tier, 0) + tier.side_mm) * 0.2 * frame.scale}
          height={(top - foot) * frame.scale}
          fill="#000"
          opacity="0.08"
          pointerEvents="none"
        />
      )}
      {walls && <Walls frame={frame} tier={tier} />}
      {of('drip').map((place) => (
        <DripsDrawing
          key={place.path}
          frame={frame}
          tier={tier}
          place={place}
          top={top}
          edge={edge(place)}
          pick={pick(place)}
        />
      ))}
      {of('border').map((place) => (
        <Border
          key={place.path}
          frame={frame}
          tier={tier}
          place={place}
          edge={edge(place)}
          pick={pick(place)}
        />
      ))}
      {[...of('rosettes'), ...of('pieces')].map((place) => (
        <OnTop
          key={place.path}
          frame={frame}
          tier={tier}
          place={place}
          top={top}
          edge={edge(place)}
          pick={pick(place)}
        />
      ))}
    </g>
  )
}

interface PileProps {
  frame: Frame
  tier: TierAnswer
  colour: string
  place: PlaceAnswer | undefined
  pick: (place: PlaceAnswer | undefined) => object
}

/** The pieces of a pile, behind the one that is cut. */
function Pile({ frame, tier, colour, place, pick }: PileProps) {
  const outline = tier.profile_mm
    .map(([z = 0, w = 0]): [number, number] => [w, z])
    .concat(tier.profile_mm.map(([z = 0, w = 0]): [number, number] => [-w, z]).reverse())
  return (
    <g {...pick(place)}>
      {piled(tier).map(([x, z], k) => (
        <path
          key={k}
          d={`M${outline.map(([w, up]) => `${frame.x(x + w).toFixed(1)} ${frame.y(z + up).toFixed(1)}`).join('L')}Z`}
          fill={colour}
          stroke="var(--ink)"
          strokeWidth="0.8"
        />
      ))}
    </g>
  )
}

/** The film in a case: along its hollow, open above. */
function lining(frame: Frame, tier: TierAnswer): string {
  const foot = tier.z_mm[0] ?? 0
  const edge = (tier.hollow_mm ?? []).map(([z = 0, w = 0]): [number, number] => [w, z])
  const points = [...edge.map(([w, z]): [number, number] => [-w, z]).reverse(), ...edge]
  return `M${points.map(([x, z]) => `${frame.x(x).toFixed(1)} ${frame.y(foot + z).toFixed(1)}`).join('L')}`
}

function mirrored(frame: Frame, inner: number, outer: number, z0: number, z1: number, side: -1 | 1): string {
  return side === -1 ? box(frame, inner, outer, z0, z1) : box(frame, -outer, -inner, z0, z1)
}

interface MarkProps {
  frame: Frame
  tier: TierAnswer
  place: PlaceAnswer
  edge: { stroke: string; strokeWidth: number }
  pick: object
}

/** Drips round the front: evenly along the edge, so closer together where it turns away. */
function DripsDrawing({ frame, tier, place, top, edge, pick }: MarkProps & { top: number }) {
  const radius = halfWidth(tier, tier.inner_mm) + tier.side_mm
  const shown = Math.max(1, Math.round(place.count / 4))
  const lengths = place.drips_mm
  const film = 2.2
  return (
    <g {...pick} fill={colour(place)} {...edge}>
      {Array.from({ length: shown }, (_, k) => {
        const x = radius * Math.sin(((k + 0.5) / shown) * (Math.PI / 2))
        return (
          <path key={k} d={dripPath(frame, Math.min(x, radius - DRIP / 2), top, lengths[k] ?? 0, DRIP)} />
        )
      })}
      <path
        d={`M${frame.x(-radius)} ${frame.y(top)}V${frame.y(top + film)}H${frame.x(radius)}V${frame.y(top - 1.5)}H${frame.x(0)}V${frame.y(top)}Z`}
      />
    </g>
  )
}

/** Pips round the foot or the edge: along the face, and one in the cut. */
function Border({ frame, tier, place, edge, pick }: MarkProps) {
  const tip = place.thickness_mm
  const foot = tier.z_mm[0] ?? 0
  const at = place.on_top ? (tier.z_mm[1] ?? 0) : foot
  const radius = halfWidth(tier, 0) + tier.side_mm + tip / 3
  const many = Math.max(1, Math.min(60, Math.round(place.count / 4)))
  const pip = (x: number, wide: number) => {
    const [cx, y] = [frame.x(x), frame.y(at)]
    const [w, h] = [(wide / 2) * frame.scale, tip * 0.9 * frame.scale]
    return `M${cx - w} ${y}C${cx - w} ${y - h * 0.7} ${cx - w * 0.2} ${y - h * 0.8} ${cx} ${y - h}C${cx + w * 0.2} ${y - h * 0.8} ${cx + w} ${y - h * 0.7} ${cx + w} ${y}Z`
  }
  return (
    <g {...pick} fill={colour(place)} {...edge}>
      {Array.from({ length: many }, (_, k) => {
        const turn = ((k + 0.5) / many) * (Math.PI / 2)
        return <path key={k} d={pip(radius * Math.sin(turn), Math.max(tip * 0.3, tip * Math.cos(turn)))} />
      })}
      <path d={pip(-radius, tip)} />
    </g>
  )
}

/** Rosettes and pieces: spread over the top. */
function OnTop({ frame, tier, place, top, edge, pick }: MarkProps & { top: number }) {
  const each = place.count / Math.max(1, tier.count)
  const shown = Math.max(1, Math.min(14, Math.ceil(each / 2)))
  const tall = place.kind === 'rosettes' ? place.thickness_mm : 6
  const wide = place.width_mm ?? 7
  const radius = Math.max(6, halfWidth(tier, tier.inner_mm) + tier.side_mm - wide / 2 - 2)
  return (
    <g {...pick} fill={place.tint ? lifted(place.tint) : 'var(--well)'} {...edge}>
      {Array.from({ length: shown }, (_, k) => {
        const x = shown === 1 ? 0 : -radius + (2 * radius * k) / (shown - 1)
        const [cx, y] = [frame.x(x), frame.y(top)]
        const [w, h] = [(wide / 2) * frame.scale, tall * frame.scale]
        return place.kind === 'rosettes' ? (
          <path
            key={k}
            d={`M${cx - w} ${y}C${cx - w * 1.1} ${y - h * 0.5} ${cx - w * 0.3} ${y - h * 0.7} ${cx} ${y - h}C${cx + w * 0.3} ${y - h * 0.7} ${cx + w * 1.1} ${y - h * 0.5} ${cx + w} ${y}Z`}
          />
        ) : (
          <ellipse key={k} cx={cx} cy={y - h / 2} rx={w} ry={h / 2} />
        )
      })}
    </g>
  )
}

/** Dowels in the cut, level with the coat. */
function Dowels({ frame, tier, above }: { frame: Frame; tier: TierAnswer; above: TierAnswer | undefined }) {
  const dowels = tier.dowels
  if (!dowels) return null
  const reach = (above ? halfWidth(above, 0) : halfWidth(tier, 0)) * 0.62
  const shown = Math.max(1, Math.round(dowels.count / 2))
  return (
    <g>
      {Array.from({ length: shown }, (_, k) => {
        const x = -reach * ((k + 0.6) / shown)
        return (
          <rect
            key={k}
            x={frame.x(x - dowels.diameter_mm / 2)}
            y={frame.y(tier.z_mm[1] ?? 0)}
            width={dowels.diameter_mm * frame.scale}
            height={((tier.z_mm[1] ?? 0) - (tier.z_mm[0] ?? 0)) * frame.scale}
            fill="#fff"
            stroke="var(--ink)"
          />
        )
      })}
    </g>
  )
}

/** The walls of a vessel, and its brim. */
function Walls({ frame, tier }: { frame: Frame; tier: TierAnswer }) {
  const wall = tier.wall_mm ?? tier.inner_mm
  return (
    <g fill="none" stroke="var(--line2)" strokeWidth="3" strokeLinejoin="round">
      <path d={vessel(frame, tier, wall)} />
      {tier.brim_mm != null && (
        <line
          x1={frame.x(-halfWidth(tier, tier.brim_mm))}
          x2={frame.x(halfWidth(tier, tier.brim_mm))}
          y1={frame.y((tier.z_mm[0] ?? 0) + tier.brim_mm)}
          y2={frame.y((tier.z_mm[0] ?? 0) + tier.brim_mm)}
          stroke="var(--rim)"
          strokeWidth="1.2"
          strokeDasharray="5 4"
        />
      )}
    </g>
  )
}

interface RollProps {
  frame: Frame
  tier: TierAnswer
  places: PlaceAnswer[]
  outermost: PlaceAnswer | undefined
  edge: (place: PlaceAnswer | undefined) => { stroke: string; strokeWidth: number }
  pick: (place: PlaceAnswer | undefined) => object
}

/** A roll, seen at its cut end. */
function Roll({ frame, tier, places, outermost, edge, pick }: RollProps) {
  const sponge = places.find((place) => place.kind === 'sponge')
  const fillings = places.filter((place) => place.kind === 'filling')
  const pitch = places
    .filter((place) => place.kind === 'sponge' || place.kind === 'filling')
    .reduce((sum, place) => sum + place.thickness_mm, 0)
  const foot = tier.z_mm[0] ?? 0
  const middle = foot + tier.side_mm + tier.inner_mm / 2
  const [cx, cy] = [frame.x(0), frame.y(middle)]
  const radius = tier.inner_mm / 2
  return (
    <g>
      {outermost && (
        <circle
          cx={cx}
          cy={cy}
          r={(radius + tier.side_mm) * frame.scale}
          fill={colour(outermost)}
          {...edge(outermost)}
          {...pick(outermost)}
        />
      )}
      <g {...pick(sponge)}>
        <circle cx={cx} cy={cy} r={radius * frame.scale} fill={colour(sponge)} {...edge(sponge)} />
        <circle cx={cx} cy={cy} r={radius * frame.scale} fill="url(#crumb)" pointerEvents="none" />
      </g>
      {fillings.map((place) => (
        <path
          key={place.path}
          d={spiral(frame, middle, radius - place.thickness_mm / 2, pitch)}
          fill="none"
          stroke={edge(place).strokeWidth > 1 ? 'var(--rim)' : colour(place)}
          strokeWidth={Math.max(1, place.thickness_mm * frame.scale)}
          {...pick(place)}
        />
      ))}
    </g>
  )
}
