/** Whether two documents say the same. */
export function same(a: unknown, b: unknown): boolean {
  return JSON.stringify(sorted(a)) === JSON.stringify(sorted(b))
}

/** Keys in order and empty optional fields left out: the server writes the same document its own way. */
function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted)
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(
    Object.entries(value)
      .filter(([, inner]) => inner !== undefined && inner !== null && inner !== '')
      .sort(([a], [b]) => a.localeCompare(b))
      .map(([key, inner]) => [key, sorted(inner)]),
  )
}
