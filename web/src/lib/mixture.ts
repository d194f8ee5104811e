/** The mixture's own colour, for its drawings only: ivory, through milk, to dark, by cocoa solids. */
const STOPS = [
  [0, [240, 226, 190]],
  [1.5, [201, 160, 112]],
  [4, [139, 90, 60]],
  [7, [107, 66, 38]],
  [12, [70, 39, 24]],
] as const satisfies readonly (readonly [number, readonly [number, number, number]])[]

export function mixtureColour(cocoaSolidsPercent: number): string {
  let [lowAt, low]: readonly [number, readonly [number, number, number]] = STOPS[0]
  for (const [at, colour] of STOPS) {
    if (at >= cocoaSolidsPercent) {
      const part = at === lowAt ? 0 : (cocoaSolidsPercent - lowAt) / (at - lowAt)
      const mix = low.map((value, k) => Math.round(value + part * ((colour[k] ?? value) - value)))
      return lifted(`rgb(${mix.join(' ')})`)
    }
    ;[lowAt, low] = [at, colour]
  }
  return lifted(`rgb(${low.join(' ')})`)
}

/** In the dim theme dark mixtures are lifted, so that they stand out from the field. */
export function lifted(colour: string): string {
  return `color-mix(in oklab, ${colour}, white var(--mixture-lift))`
}
