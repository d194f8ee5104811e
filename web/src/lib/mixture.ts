/** A mixture's own colour for its drawings: in the dim theme dark ones are lifted, so that they stand out from the field. */
export function lifted(colour: string): string {
  return `color-mix(in oklab, ${colour}, white var(--mixture-lift))`
}
