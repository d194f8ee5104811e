import type { ComponentSummary, FormulaDocument, IngredientEntry } from '../api/client'

/** What the key of something made here begins with, in a line; `@` and a number hold it at a version. */
const MADE = 'made-'

/** The component a line names, and the version it is held at; none for what is bought. */
export function componentOf(key: string): { component: string; version: number | null } | null {
  if (!key.startsWith(MADE)) return null
  const named = key.slice(MADE.length)
  const at = named.indexOf('@')
  if (at < 0) return { component: named, version: null }
  return { component: named.slice(0, at), version: Number(named.slice(at + 1)) || null }
}

/** The key by which a line names a component. */
export function madeKey(component: string, version: number | null = null): string {
  return version === null ? MADE + component : `${MADE}${component}@${version}`
}

/** A component as an ingredient is shown: what it is made of is told by the answer to the formula. */
export function madeEntry(key: string, name: string, word: string): IngredientEntry {
  return {
    ingredient: key,
    name,
    also: [word],
    group: 'other',
    allergens: [],
    confidence: '',
    kitchen: { archived: false, revision: 0 },
    own: false,
    phases_percent: { fat: 0, sugar: 0, water: 0, dry: 0, setting: 0 },
    source: '',
    table_pieces: [],
    used_in: 0,
  }
}

/** The components that a formula's lines name, by the keys of the lines. */
export function madeEntries(document: FormulaDocument, kept: ComponentSummary[]): IngredientEntry[] {
  return document.lines.flatMap((line) => {
    const made = componentOf(line.ingredient)
    if (!made) return []
    const found = kept.find((each) => each.id === made.component)
    if (found) return [madeEntry(line.ingredient, found.name, found.family_word)]
    const brought = document.components?.find((each) => madeKey(each.key) === line.ingredient)
    return brought ? [madeEntry(line.ingredient, brought.document.name || 'Made here', '')] : []
  })
}

/** Components in which another one is, however deep: it must not be made of any of them. */
export function madeOf(component: string, kept: ComponentSummary[]): Set<string> {
  const inside = new Set([component])
  for (let grown = true; grown;) {
    const more = kept.filter(
      (each) => !inside.has(each.id) && each.made_of?.some((inner) => inside.has(inner)),
    )
    more.forEach((each) => inside.add(each.id))
    grown = more.length > 0
  }
  return inside
}
