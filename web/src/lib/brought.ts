import type { FormulaDocument } from '../api/client'

/** A component that a file brings. */
export interface Brought {
  key: string
  document: FormulaDocument
}

/** Every component that a file brings, at any depth, each key once. */
export function broughtBy(file: unknown): Brought[] {
  const found = new Map<string, Brought>()
  const look = (value: unknown): void => {
    if (Array.isArray(value)) return value.forEach(look)
    if (typeof value !== 'object' || value === null) return
    for (const [name, inner] of Object.entries(value)) {
      if (name === 'components' && Array.isArray(inner)) {
        for (const own of inner as Brought[]) if (!found.has(own.key)) found.set(own.key, own)
      }
      look(inner)
    }
  }
  look(file)
  return [...found.values()]
}

/** The same file with other keys for some components, wherever they are named. */
export function withOtherKeys<T>(file: T, others: ReadonlyMap<string, string>): T {
  const named = (key: string) => {
    const at = key.indexOf('@')
    const other = others.get(key) ?? (at < 0 ? undefined : others.get(key.slice(0, at)))
    return other === undefined ? key : at < 0 ? other : other + key.slice(at)
  }
  const rename = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(rename)
    if (typeof value !== 'object' || value === null) return value
    return Object.fromEntries(
      Object.entries(value).map(([name, inner]) => {
        if (typeof inner !== 'string') return [name, rename(inner)]
        if (name === 'component') return [name, named(inner)]
        if (name === 'key' && 'document' in value) return [name, named(inner)]
        const isLine = name === 'ingredient' || name === 'percent_of' || name === 'of'
        const made = isLine ? /^(made-|beside-)(.+)$/.exec(inner) : null
        if (made?.[1] && made[2]) return [name, made[1] + named(made[2])]
        return [name, inner]
      }),
    )
  }
  return rename(file) as T
}
