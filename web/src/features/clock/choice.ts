import type { FamilyEntry, StandDocument, Surroundings, VesselDocument, VesselKind } from '../../api/client'

/** What a mass stands in and where, as the cook chose it. */
export interface ClockChoice {
  vessel: VesselDocument
  places: StandDocument[]
  /** How much of it, kg; the batch when null. */
  kg: number | null
  /** How warm at first, °C; where the school leaves it when null. */
  startC: number | null
  /** The room while it stands, °C; the kitchen's when null. */
  roomC: number | null
  /** The time it begins by the clock on the wall: "13:05". */
  at: string
  rule: Rule
  /** What a probe in the middle of it read, after so many minutes. */
  probe: { min: number; c: number } | null
}

export type Rule = 'us_fda' | 'ca' | 'anz' | 'uk' | 'fr'

export const RULES: readonly (readonly [Rule, string])[] = [
  ['us_fda', 'US Food Code'],
  ['ca', 'Canada'],
  ['anz', 'Australia, New Zealand'],
  ['uk', 'United Kingdom'],
  ['fr', 'France'],
]

export const VESSELS: readonly (readonly [VesselKind, string])[] = [
  ['bowl', 'a bowl'],
  ['tray', 'a wide tray'],
  ['mould', 'moulds'],
  ['dome', 'half balls'],
  ['ring', 'a ring'],
  ['cup', 'cups'],
  ['jar', 'jars'],
  ['bottle', 'bottles'],
  ['bag', 'piping bags'],
  ['on_cake', 'a coat on a cake'],
  ['boxed', 'a cake in its box'],
]

export const PLACES: readonly (readonly [Surroundings, string])[] = [
  ['bench', 'on the bench'],
  ['draught', 'in a draught'],
  ['fridge', 'in the fridge'],
  ['fan_fridge', 'in the fridge with a fan'],
  ['blast', 'in the blast chiller'],
  ['hard_blast', 'in the blast freezer'],
  ['freezer', 'in the freezer'],
  ['fan_freezer', 'in the freezer with a fan'],
  ['ice_bath', 'in iced water'],
  ['water_bath', 'over warm water'],
  ['microwave', 'in the microwave'],
]

/** Places with air in them: those a probe can tell of. */
export const OF_AIR: ReadonlySet<Surroundings> = new Set<Surroundings>([
  'bench',
  'draught',
  'fridge',
  'fan_fridge',
  'blast',
  'hard_blast',
  'freezer',
  'fan_freezer',
])

/** A size of a vessel: its field, its name, its range, mm, and what it is where nobody said. */
export interface Size {
  field: 'diameter_mm' | 'height_mm' | 'length_mm' | 'width_mm'
  word: string
  range: [number, number]
  usual: number
}

const wide = (usual: number, range: [number, number], word = 'Wide'): Size => ({
  field: 'diameter_mm',
  word,
  range,
  usual,
})
const high = (usual: number, range: [number, number], word = 'High'): Size => ({
  field: 'height_mm',
  word,
  range,
  usual,
})

export const SIZES: Record<VesselKind, Size[]> = {
  bowl: [wide(200, [100, 500], 'Rim')],
  tray: [
    { field: 'length_mm', word: 'Long', range: [100, 800], usual: 400 },
    { field: 'width_mm', word: 'Wide', range: [100, 600], usual: 300 },
  ],
  mould: [wide(70, [20, 300]), high(35, [5, 150])],
  dome: [wide(70, [20, 300]), high(35, [5, 150])],
  ring: [wide(180, [40, 400]), high(45, [10, 150])],
  cup: [wide(65, [30, 150]), high(60, [10, 150])],
  jar: [wide(70, [30, 150]), high(70, [10, 200])],
  bottle: [wide(70, [30, 150]), high(150, [20, 300])],
  bag: [wide(80, [30, 150])],
  on_cake: [high(3, [0.5, 20], 'Thick')],
  boxed: [wide(200, [50, 400]), high(100, [20, 250])],
}

export const STIRS: ReadonlySet<VesselKind> = new Set<VesselKind>(['bowl', 'tray'])
export const COUNTED: ReadonlySet<VesselKind> = new Set<VesselKind>(['bowl', 'tray', 'bag'])
export const COVERED: Partial<Record<VesselKind, boolean>> = {
  bowl: true,
  tray: true,
  cup: true,
  jar: true,
  mould: false,
  dome: false,
  ring: false,
}

/** Where a family usually stands after it was made (common practice). */
export function usualChoice(family: FamilyEntry | undefined, at: string): ClockChoice {
  const group = family?.group
  const [kind, place]: [VesselKind, Surroundings] =
    group === 'custard'
      ? ['tray', 'fridge']
      : group === 'mousse'
        ? ['ring', 'fridge']
        : group === 'whipped_cream'
          ? ['bowl', 'fridge']
          : ['bowl', 'bench']
  return {
    vessel: { kind },
    places: [{ place }],
    kg: null,
    startC: null,
    roomC: null,
    at,
    rule: 'us_fda',
    probe: null,
  }
}
