import { useEffect, useMemo, useRef, useState } from 'react'
import type { Fault, Inferred, IngredientDocument, Label } from '../../api/client'
import { ProblemError } from '../../api/client'
import { numberOrNull } from '../../lib/number'
import { TextNumber } from '../../ui/TextNumber'
import { infer } from './queries'
import { Select } from '../../ui/Select'

type Kind = Label['kind']
type Origins = NonNullable<IngredientDocument['origins']>

const KINDS = [
  ['dairy', 'milk, cream, cheese, butter', 'dairy', ['milk']],
  ['dark_chocolate', 'dark chocolate', 'chocolate', ['plant']],
  ['milk_chocolate', 'milk chocolate', 'chocolate', ['plant', 'milk']],
  ['white_chocolate', 'white chocolate', 'chocolate', ['plant', 'milk']],
  ['cocoa_powder', 'cocoa powder', 'cocoa', ['plant']],
  ['egg', 'egg, yolk or white', 'egg', ['egg']],
  ['sugar', 'sugar, sugar syrup', 'sugar', ['plant']],
  ['glucose_syrup', 'glucose or corn syrup', 'sugar', ['plant']],
  ['invert_syrup', 'honey, invert, agave', 'sugar', ['plant']],
  ['fruit', 'fruit, juice, puree, jam', 'fruit', ['plant']],
  ['nut_paste', 'nut or seed paste', 'nut', ['plant']],
  ['plant_fat', 'oil, vegetable fat', 'fat', ['plant']],
  ['coconut', 'coconut milk, cream, fat', 'fat', ['plant']],
  ['starch', 'flour, starch, biscuit', 'starch', ['plant']],
  ['plant_drink', 'plant drink, coffee', 'liquid', ['plant']],
  ['alcohol', 'spirit, liqueur, wine', 'alcohol', ['plant']],
] as const satisfies readonly (readonly [Kind, string, string, readonly Origins[number][]])[]

const FIELDS = [
  ['fat_g', 'Fat', true],
  ['saturates_g', 'of which saturates', false],
  ['carbohydrate_g', 'Carbohydrate', true],
  ['sugars_g', 'of which sugars', true],
  ['fibre_g', 'Fibre', false],
  ['protein_g', 'Protein', true],
  ['salt_g', 'Salt', false],
] as const

const MORE = [
  ['cocoa_percent', 'Cocoa', '%'],
  ['milk_fat_percent', 'Milk fat', '%'],
  ['alcohol_percent_vol', 'Alcohol', '% vol'],
  ['brix', 'Brix', '°Bx'],
] as const

type Field = (typeof FIELDS)[number][0] | (typeof MORE)[number][0]

/** The label as far as it is written; none while a needed number is missing or is no number. */
function labelOf(kind: Kind, texts: Partial<Record<Field, string>>): Label | null {
  const value = (field: Field) => numberOrNull(texts[field] ?? '')
  const needed = (field: Field) => value(field) ?? null
  const [fat, carbohydrate, sugars, protein] = [
    needed('fat_g'),
    needed('carbohydrate_g'),
    needed('sugars_g'),
    needed('protein_g'),
  ]
  const unread = [...FIELDS, ...MORE].some(([field]) => value(field) === undefined)
  if (unread || fat === null || carbohydrate === null || sugars === null || protein === null) return null
  return {
    kind,
    fat_g: fat,
    saturates_g: needed('saturates_g'),
    carbohydrate_g: carbohydrate,
    sugars_g: sugars,
    fibre_g: needed('fibre_g'),
    protein_g: protein,
    salt_g: needed('salt_g') ?? 0,
    cocoa_percent: needed('cocoa_percent'),
    milk_fat_percent: needed('milk_fat_percent'),
    alcohol_percent_vol: needed('alcohol_percent_vol'),
    brix: needed('brix'),
  }
}

interface LabelFieldsProps {
  onInferred: (inferred: Inferred, label: Label) => void
  onKind: (group: string, origins: Origins) => void
}

/** The nutrition panel per 100 g; what it leaves out is worked out while it is written. */
export function LabelFields({ onInferred, onKind }: LabelFieldsProps) {
  const [kind, setKind] = useState<Kind>('dairy')
  const [texts, setTexts] = useState<Partial<Record<Field, string>>>({})
  const [faults, setFaults] = useState<Fault[]>([])
  const [said, setSaid] = useState<string | null>(null)
  const told = useRef({ onInferred })
  useEffect(() => {
    told.current = { onInferred }
  })
  const number = (field: Field) => numberOrNull(texts[field] ?? '')
  const missing = FIELDS.filter(([field, , needed]) => needed && typeof number(field) !== 'number')
  const label = useMemo(() => labelOf(kind, texts), [kind, texts])

  useEffect(() => {
    if (!label) return
    let gone = false
    const timer = window.setTimeout(() => {
      infer(label)
        .then((inferred) => {
          if (gone) return
          setFaults([])
          setSaid(null)
          told.current.onInferred(inferred, label)
        })
        .catch((error: unknown) => {
          if (gone) return
          if (error instanceof ProblemError) setFaults(error.problem.errors ?? [])
          setSaid(error instanceof Error ? error.message : null)
        })
    }, 200)
    return () => {
      gone = true
      window.clearTimeout(timer)
    }
  }, [label])

  const field = (name: Field, words: string, unit: string) => (
    <TextNumber
      key={name}
      label={words}
      unit={unit}
      value={texts[name] ?? ''}
      onChange={(text) => setTexts((now) => ({ ...now, [name]: text }))}
      fault={
        number(name) === undefined ? 'Write a number.' : faults.find((fault) => fault.field === name)?.message
      }
    />
  )
  return (
    <section aria-label="Its label" className="flex flex-col gap-3 rounded-lg bg-well p-4">
      <div className="flex flex-wrap items-center gap-2">
        It is
        <Select
          inline
          label="What kind of thing it is"
          value={kind}
          onChange={(key) => {
            const next = KINDS.find(([each]) => each === key)
            if (!next) return
            setKind(next[0])
            onKind(next[2], [...next[3]])
          }}
          options={KINDS.map(([key, words]) => [key, words] as const)}
        />
        <span className="text-ink2">The panel per 100 g:</span>
      </div>
      <div className="grid grid-cols-3 gap-3 max-laptop:grid-cols-2">
        {FIELDS.map(([name, words]) => field(name, words, 'g'))}
        {MORE.map(([name, words, unit]) => field(name, words, unit))}
      </div>
      <p role="status" className={said ? 'font-[640] text-hot' : 'text-ink2'}>
        {said ??
          (missing.length > 0
            ? `Still to write: ${missing.map(([, words]) => words.toLowerCase()).join(', ')}.`
            : 'Worked out below; change any number you know better.')}
      </p>
    </section>
  )
}
