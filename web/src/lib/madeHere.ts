import type { ComponentSummary, FormulaDocument, IngredientEntry } from '../api/client'

/** What the key of something made here begins with, in a line; `@` and a number hold it at a version. */
const MADE = 'made-'
/** The same of what comes beside it: the liquid its fruit was drained of. */
const BESIDE = 'beside-'

/** What a line names of what is made here. */
export interface MadeHere {
  component: string
  /** The version it is held at. */
  version: number | null
  /** Whether it is the other part of what that is strained into. */
  beside: boolean
}

/** The component a line names; none for what is bought. */
export function componentOf(key: string): MadeHere | null {
  const beside = key.startsWith(BESIDE)
  if (!beside && !key.startsWith(MADE)) return null
  const named = key.slice((beside ? BESIDE : MADE).length)
  const at = named.indexOf('@')
  if (at < 0) return { component: named, version: null, beside }
  return { component: named.slice(0, at), version: Number(named.slice(at + 1)) || null, beside }
}

/** The key by which a line names a component, or what comes beside it. */
export function madeKey(component: string, version: number | null = null, beside = false): string {
  const key = (beside ? BESIDE : MADE) + component
  return version === null ? key : `${key}@${version}`
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

/** A component of the kitchen, and what comes beside it, as ingredients. */
export function entriesOf(own: ComponentSummary): IngredientEntry[] {
  const entry = madeEntry(madeKey(own.id), own.name, own.family_word)
  if (!own.beside) return [entry]
  return [entry, madeEntry(madeKey(own.id, null, true), own.beside, own.family_word)]
}

/** The components that a formula's lines name, by the keys of the lines. */
export function madeEntries(document: FormulaDocument, kept: ComponentSummary[]): IngredientEntry[] {
  return document.lines.flatMap((line) => {
    const made = componentOf(line.ingredient)
    if (!made) return []
    const found = kept.find((each) => each.id === made.component)
    if (found) {
      const name = made.beside ? (found.beside ?? `Beside ${found.name}`) : found.name
      return [madeEntry(line.ingredient, name, found.family_word)]
    }
    const brought = document.components?.find(
      (each) => madeKey(each.key, null, made.beside) === line.ingredient,
    )
    if (!brought) return []
    const name = brought.document.name || 'Made here'
    return [madeEntry(line.ingredient, made.beside ? `Beside ${name}` : name, '')]
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
