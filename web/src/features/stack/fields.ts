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
  ['tube', 'Tube', { shape: 'tube', diameter_mm: 24, length_mm: 110 }],
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
  [
    'case',
    'Shell, crust or case',
    'case',
    { form: { kind: 'shell', wall_mm: 3, floor_mm: 3, flutes_mm: 0 } },
  ],
  ['film', 'Film in the case', 'case.film', { thickness_mm: 0.4 }],
] as const

/** Forms of a case, with how each begins. */
export const FORMS = [
  ['shell', 'floor and wall, open above', { kind: 'shell', wall_mm: 3, floor_mm: 3, flutes_mm: 0 }],
  ['closed', 'hollow all round', { kind: 'closed', wall_mm: 3 }],
  ['tube', 'open at both ends', { kind: 'tube', wall_mm: 1.5 }],
  ['cored', 'whole, with a hole cut from the top', { kind: 'cored', across_mm: 26, deep_mm: 28 }],
] as const

/** The form that goes with a shape. */
export function formFor(shape: string) {
  const kind = shape === 'tube' ? 'tube' : ['dome', 'half_log', 'trough'].includes(shape) ? 'closed' : 'shell'
  return FORMS.find(([own]) => own === kind)?.[2] ?? FORMS[0][2]
}

export const LISTS = ['layers', 'borders', 'rosettes', 'pieces', 'inserts'] as const
