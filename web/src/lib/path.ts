/** Reading and writing inside a document by a path such as `tiers.0.layers.2.dam`. */

function keysOf(path: string): string[] {
  return path === '' ? [] : path.split('.')
}

export function readAt(document: unknown, path: string): unknown {
  return keysOf(path).reduce<unknown>(
    (inside, key) =>
      typeof inside === 'object' && inside !== null ? (inside as Record<string, unknown>)[key] : undefined,
    document,
  )
}

/** The document with another value at a path; undefined or null takes the field, or the item of a list, away. */
export function writeAt<T>(document: T, path: string, value: unknown): T {
  const [key, ...rest] = keysOf(path)
  if (key === undefined) return value as T
  const deeper = rest.join('.')
  const gone = value === undefined || value === null
  if (Array.isArray(document)) {
    const at = Number(key)
    if (deeper === '' && gone) return document.filter((_, k) => k !== at) as T
    return document.map((own: unknown, k) =>
      k === at ? (deeper === '' ? value : writeAt(own, deeper, value)) : own,
    ) as T
  }
  const fields: Record<string, unknown> = { ...(document as Record<string, unknown> | null) }
  if (deeper === '' && gone) delete fields[key]
  else fields[key] = deeper === '' ? value : writeAt(fields[key] ?? {}, deeper, value)
  return fields as T
}

/** The document with several places written, one after the other. */
export function writeAll<T>(document: T, writes: { path: string; value?: unknown }[]): T {
  return writes.reduce((own, write) => writeAt(own, write.path, write.value), document)
}

/** The document with one item more in the list at a path, before the item that stands at `at`. */
export function insertAt<T>(document: T, path: string, at: number, value: unknown): T {
  const list = readAt(document, path)
  const all: unknown[] = Array.isArray(list) ? [...(list as unknown[])] : []
  all.splice(Math.max(0, Math.min(all.length, at)), 0, value)
  return writeAt(document, path, all)
}

/** The document with an item of the list at a path moved by so many places. */
export function moveBy<T>(document: T, path: string, at: number, by: number): T {
  const list = readAt(document, path)
  if (!Array.isArray(list)) return document
  const to = at + by
  if (to < 0 || to >= list.length) return document
  const all: unknown[] = [...(list as unknown[])]
  const [item] = all.splice(at, 1)
  all.splice(to, 0, item)
  return writeAt(document, path, all)
}
