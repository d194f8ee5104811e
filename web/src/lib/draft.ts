/** Work that was not saved yet, kept on this device until it is. */
export interface Draft<T> {
  document: T
  /** Revision it started from; 0 for something new. */
  basedOn: number
  at: string
}

const KEY = 'bright-spoon.draft.'

/** Unsaved work on what has this key; none when there is none, or it is of another kind. */
export function readDraft<T extends { format: string }>(id: string, format: string): Draft<T> | null {
  const text = localStorage.getItem(KEY + id)
  if (!text) return null
  try {
    const draft = JSON.parse(text) as Draft<T>
    return draft.document.format === format ? draft : null
  } catch {
    return null
  }
}

export function keepDraft<T>(id: string, draft: Draft<T>) {
  try {
    localStorage.setItem(KEY + id, JSON.stringify(draft))
  } catch {
    // A full or forbidden store must not stop the cook; the page itself still holds the work.
  }
}

export function dropDraft(id: string) {
  localStorage.removeItem(KEY + id)
}

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
