import type { Came, SpoonSign } from '../../api/client'

/** How a batch came out. */
export const CAME: readonly (readonly [Came, string])[] = [
  ['good', 'As it should'],
  ['stiff', 'Too stiff'],
  ['loose', 'Too loose'],
  ['split', 'Split'],
  ['grainy', 'Grainy'],
  ['thrown', 'Thrown away'],
]

/** What a spoonful does, from thin to firm. */
export const SPOON: readonly (readonly [SpoonSign, string])[] = [
  ['thin_stream', 'Thin stream'],
  ['thin_ribbon', 'Thin ribbon'],
  ['folding_ribbon', 'Folding ribbon'],
  ['slow_rope', 'Slow rope'],
  ['soft_dollop', 'Soft dollop'],
  ['holds_upside_down', 'Holds upside down'],
  ['clean_cut', 'Clean cut'],
]
