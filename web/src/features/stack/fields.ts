import type { PlaceKind } from '../../api/client'

/** A number of a place: where it stands in the document, and between what. */
export interface NumberSpec {
  word: string
  field: string
  unit: string
  min: number
  max: number
  step: number
  /** What it is while nothing is written. */
  usual: number
}

const mm = (word: string, field: string, min: number, max: number, usual: number, step = 1): NumberSpec => ({
  word,
  field,
  unit: 'mm',
  min,
  max,
  step,
  usual,
})

/** What can be typed at each kind of place. */
export const NUMBERS: Record<PlaceKind, NumberSpec[]> = {
  sponge: [mm('Height', 'thickness_mm', 0.5, 300, 20), mm('Trimmed off', 'trim_mm', 0, 100, 0)],
  soak: [mm('Dry rim', 'dry_rim_mm', 0, 100, 10)],
  filling: [mm('Height', 'thickness_mm', 0.5, 300, 10)],
  dam: [mm('Width', 'width_mm', 1, 60, 12)],
  insert: [
    mm('Across', 'diameter_mm', 5, 1000, 40),
    mm('Height', 'thickness_mm', 0.5, 200, 10),
    mm('Above the foot', 'above_mm', 0, 300, 0),
  ],
  crumb_coat: [mm('On the side', 'side_mm', 0.1, 30, 1.5, 0.5), mm('On top', 'top_mm', 0.1, 30, 1.5, 0.5)],
  coat: [mm('On the side', 'side_mm', 0.1, 60, 5), mm('On top', 'top_mm', 0.1, 60, 5)],
  glaze: [mm('On the side', 'side_mm', 0.1, 20, 2, 0.5), mm('On top', 'top_mm', 0.1, 20, 2, 0.5)],
  drip: [
    { word: 'Drips', field: 'count', unit: '', min: 0, max: 400, step: 1, usual: 30 },
    { word: 'Each', field: 'dose_ml', unit: 'ml', min: 0.05, max: 20, step: 0.05, usual: 0.9 },
    mm('Shortest', 'length_mm.0', 1, 190, 25),
    mm('Longest', 'length_mm.1', 1, 190, 70),
    { word: 'Coat is', field: 'coat_c', unit: '°C', min: -20, max: 30, step: 1, usual: 6 },
  ],
  border: [mm('Nozzle', 'tip_mm', 1, 40, 10)],
  rosettes: [
    { word: 'Pieces', field: 'count', unit: '', min: 1, max: 1000, step: 1, usual: 8 },
    mm('Across', 'diameter_mm', 2, 150, 25),
    mm('Height', 'height_mm', 1, 150, 20),
    mm('Nozzle', 'tip_mm', 1, 39, 10),
  ],
  pieces: [
    { word: 'Pieces', field: 'count', unit: '', min: 1, max: 1000, step: 1, usual: 8 },
    { word: 'Each', field: 'each_g', unit: 'g', min: 0.05, max: 5000, step: 1, usual: 10 },
  ],
}

/** Shapes a tier can have, with a usual size of each. */
export const SHAPES = [
  ['round', 'Round', { shape: 'round', diameter_mm: 180 }],
  ['rectangle', 'Square, rectangle', { shape: 'rectangle', length_mm: 200, width_mm: 200, corner_mm: 0 }],
  ['ring', 'Ring', { shape: 'ring', diameter_mm: 220, hole_mm: 80 }],
  ['heart', 'Heart', { shape: 'heart', side_mm: 140 }],
  ['hexagon', 'Hexagon', { shape: 'hexagon', across_mm: 180 }],
  ['cup', 'Jar, cup, round tin', { shape: 'cup', bottom_mm: 70, top_mm: 70, height_mm: 75 }],
  [
    'loaf',
    'Loaf, box, tray',
    {
      shape: 'loaf',
      top_length_mm: 240,
      top_width_mm: 110,
      bottom_length_mm: 220,
      bottom_width_mm: 95,
      height_mm: 70,
    },
  ],
  ['dome', 'Dome', { shape: 'dome', diameter_mm: 70, height_mm: 35 }],
  ['half_log', 'Half log', { shape: 'half_log', diameter_mm: 80, length_mm: 250 }],
  ['trough', 'Log', { shape: 'trough', width_mm: 80, height_mm: 65, length_mm: 250 }],
  ['roll', 'Roll', { shape: 'roll', sheet_mm: 350, length_mm: 250 }],
] as const

/** Words of the sizes of a body. */
export const SIZE_WORD: Record<string, string> = {
  diameter_mm: 'Across',
  length_mm: 'Length',
  width_mm: 'Width',
  corner_mm: 'Corner radius',
  hole_mm: 'Hole',
  side_mm: 'Side',
  across_mm: 'Side to side',
  bottom_mm: 'Bottom',
  top_mm: 'Top',
  height_mm: 'Height',
  top_length_mm: 'Top length',
  top_width_mm: 'Top width',
  bottom_length_mm: 'Bottom length',
  bottom_width_mm: 'Bottom width',
  sheet_mm: 'Sheet',
}

/** What a tier can be given more of, with how it begins. */
export const ADDITIONS = [
  ['sponge', 'Sponge', 'layers', { kind: 'sponge', thickness_mm: 20, trim_mm: 0 }],
  ['filling', 'Filling', 'layers', { kind: 'filling', task: 'fill', thickness_mm: 8 }],
  ['crumb_coat', 'Crumb coat', 'crumb_coat', { side_mm: 1.5 }],
  ['coat', 'Coat', 'coat', { side_mm: 5 }],
  ['glaze', 'Glaze', 'glaze', { side_mm: 2 }],
  ['drip', 'Drips', 'drip', { dose_ml: 0.9, length_mm: [25, 70], coat_c: 6, flood: true }],
  ['border', 'Border', 'borders', { style: 'shell', tip_mm: 10, edge: 'foot' }],
  ['rosettes', 'Rosettes', 'rosettes', { count: 8, diameter_mm: 25, height_mm: 20, tip_mm: 10 }],
  ['pieces', 'Pieces', 'pieces', { name: 'Fruit', count: 8, each_g: 10 }],
] as const

export const LISTS = ['layers', 'borders', 'rosettes', 'pieces', 'inserts'] as const
