import type { Fault, IngredientDetail, IngredientDocument, Label, Part } from '../../api/client'
import { numberOrNull, numberWords } from '../../lib/number'

type Origin = NonNullable<IngredientDocument['origins']>[number]

/** Constituents in the order of the table, in kitchen words. */
export const PARTS = [
  ['water', 'water'],
  ['cocoa_butter', 'cocoa butter'],
  ['milk_fat', 'milk fat'],
  ['oil', 'oil'],
  ['lauric', 'coconut fat'],
  ['sucrose', 'sucrose'],
  ['glucose', 'glucose'],
  ['fructose', 'fructose'],
  ['lactose', 'lactose'],
  ['maltose', 'maltose'],
  ['dextrin', 'dextrins'],
  ['polyol', 'sugar alcohols'],
  ['cocoa', 'dry cocoa'],
  ['milk_protein', 'milk protein'],
  ['egg_white', 'egg-white solids'],
  ['yolk', 'yolk solids'],
  ['starch', 'starch'],
  ['fibre', 'fibre and plant solids'],
  ['pectin', 'pectin'],
  ['agar', 'agar'],
  ['gum', 'gums'],
  ['gelatin', 'gelatin'],
  ['alcohol', 'alcohol'],
  ['salt', 'salt'],
  ['acid', 'acids'],
  ['other', 'minerals and the rest'],
] as const satisfies readonly (readonly [Part, string])[]

/** An own ingredient as it is being written: numbers are texts until it is saved. */
export interface IngredientDraft {
  name: string
  group: string
  parts: Partial<Record<Part, string>>
  sources: Partial<Record<Part, string>>
  label: Label | null
  allergens: string[]
  origins: Origin[]
  fatInGlobules: boolean
  rawProtease: boolean
  rawEgg: boolean
  coldStarch: boolean
  density: string
  packG: string
  packPrice: string
  bloom: string
  /** Key of the ingredient in whose place it is bought; nothing for none, and in drafts of before there was such a thing. */
  replaces?: string
  /** What the form does not show stays as it was. */
  base: Partial<IngredientDocument>
}

export function begin(detail: IngredientDetail | undefined, edit: boolean): IngredientDraft {
  const document = detail?.document
  // Its own document says it exactly; the shelf shows what is rounded and looked up.
  if (edit && document) return fromDocument(document)
  const text = (value: number | null | undefined) => (value == null ? '' : String(value))
  const pack = document?.pack ?? detail?.table_pack
  return {
    name: detail ? (edit ? detail.entry.name : `${detail.entry.name}, ours`) : '',
    group: detail?.entry.group ?? 'dairy',
    parts: Object.fromEntries((detail?.constituents ?? []).map((each) => [each.part, String(each.percent)])),
    sources: Object.fromEntries((detail?.constituents ?? []).map((each) => [each.part, each.source])),
    label: document?.label ?? null,
    allergens: detail?.entry.allergens ?? [],
    origins: detail?.origins ?? [],
    fatInGlobules: document?.fat_in_globules ?? false,
    rawProtease: document?.raw_protease ?? false,
    rawEgg: document?.raw_egg ?? false,
    coldStarch: document?.cold_starch ?? false,
    density: text(document?.density_g_per_ml),
    packG: text(pack?.pack_g),
    packPrice: text(pack?.pack_price),
    bloom: detail?.bloom_g ? String(detail.bloom_g) : '',
    replaces: '',
    base: document ?? {},
  }
}

/** A version of an own ingredient as the form holds it. */
export function fromDocument(document: IngredientDocument): IngredientDraft {
  const text = (value: number | null | undefined) => (value == null ? '' : String(value))
  const parts = Object.entries(document.composition_percent).map(([part, share]) => [part, String(share)])
  return {
    name: document.name,
    group: document.group,
    parts: Object.fromEntries(parts) as IngredientDraft['parts'],
    sources: document.sources ?? {},
    label: document.label ?? null,
    allergens: document.allergens ?? [],
    origins: document.origins ?? [],
    fatInGlobules: document.fat_in_globules ?? false,
    rawProtease: document.raw_protease ?? false,
    rawEgg: document.raw_egg ?? false,
    coldStarch: document.cold_starch ?? false,
    density: text(document.density_g_per_ml),
    packG: text(document.pack?.pack_g),
    packPrice: text(document.pack?.pack_price),
    bloom: document.bloom_g ? String(document.bloom_g) : '',
    replaces: document.replaces ?? '',
    base: document,
  }
}

/** What is typed where a number belongs and is none: it stops the save, it is not left out. */
export function unreadable(draft: IngredientDraft): Fault[] {
  const fields = [
    ['density_g_per_ml', 'Density', draft.density],
    ['pack.pack_g', 'A pack weighs', draft.packG],
    ['pack.pack_price', 'and costs', draft.packPrice],
    ['bloom_g', 'Bloom strength', draft.bloom],
    ...PARTS.map(([part, word]) => [`composition_percent.${part}`, word, draft.parts[part] ?? ''] as const),
  ] as const
  return fields.flatMap(([field, word, text]) => {
    const words = numberWords(text)
    return words ? [{ field, code: 'not_a_number', message: `${word}: ${words}` }] : []
  })
}

/** The document a draft stands for. */
export function read(draft: IngredientDraft, key: string): IngredientDocument {
  const number = (text: string) => numberOrNull(text) ?? null
  const composition = Object.fromEntries(
    Object.entries(draft.parts)
      .map(([part, text]) => [part, number(text)] as const)
      .filter((pair): pair is readonly [string, number] => pair[1] !== null && pair[1] !== 0),
  )
  const [density, packG, packPrice] = [number(draft.density), number(draft.packG), number(draft.packPrice)]
  return {
    ...draft.base,
    format: 'bright-spoon/ingredient',
    version: 1,
    key,
    name: draft.name.trim(),
    group: draft.group,
    composition_percent: composition as IngredientDocument['composition_percent'],
    sources: draft.sources as NonNullable<IngredientDocument['sources']>,
    label: draft.label,
    bloom_g: number(draft.bloom) ?? 0,
    fat_in_globules: draft.fatInGlobules,
    raw_protease: draft.rawProtease,
    raw_egg: draft.rawEgg,
    cold_starch: draft.coldStarch,
    allergens: draft.allergens,
    origins: draft.origins,
    density_g_per_ml: density,
    pack: packG !== null ? { pack_g: packG, pack_price: packPrice ?? 0 } : null,
    replaces: draft.replaces ? draft.replaces : null,
    source: draft.base.source ?? (draft.label ? 'read from its label' : 'your kitchen’s own'),
  }
}

/** A key made of a name: "Meadow cream 38 %" becomes own-meadow-cream-38. */
export function keyFor(name: string): string {
  const plain = name
    .normalize('NFD')
    .replace(/\p{Diacritic}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 50)
  return `own-${plain || 'ingredient'}`
}
