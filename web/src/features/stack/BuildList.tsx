import type { PlaceAnswer, StackAnswer, StackDocument } from '../../api/client'
import type { Edit } from '../../desk/history'
import { insertAt, readAt, writeAt } from '../../lib/path'
import { ADDITIONS, formFor } from './fields'
import { Swatch } from './Takes'
import { Select } from '../../ui/Select'

interface BuildListProps {
  answer: StackAnswer
  document: StackDocument
  selected: string | null
  onSelect: (path: string) => void
  edit: Edit<StackDocument>
}

/** Every place, the top of the cake first as it is drawn, and what can be added to each tier. */
export function BuildList({ answer, document, selected, onSelect, edit }: BuildListProps) {
  const tiers = document.tiers.map((_, at) => at).reverse()
  return (
    <section aria-label="How it is built" className="flex flex-col gap-2">
      {tiers.map((at) => (
        <div key={at}>
          <TierRow
            words={`Tier ${at + 1}: ${answer.tiers[at]?.words ?? 'no size yet'}`}
            here={selected === `tiers.${at}`}
            onSelect={() => onSelect(`tiers.${at}`)}
          />
          <ul aria-label={`Places of tier ${at + 1}, from its top`}>
            {[...answer.places.filter((place) => place.tier === at)].reverse().map((place) => (
              <PlaceRow key={place.path} place={place} here={place.path === selected} onSelect={onSelect} />
            ))}
          </ul>
          <AddTo document={document} tier={at} selected={selected} edit={edit} onSelect={onSelect} />
        </div>
      ))}
      <button
        type="button"
        className="min-h-9 self-start rounded-lg border-2 border-dashed border-line2 px-3 font-[640] text-rim hover:bg-rim-tint pointer-coarse:min-h-11"
        onClick={() => {
          edit((own) => ({ ...own, tiers: [...own.tiers, smaller(own)] }))
          onSelect(`tiers.${document.tiers.length}`)
        }}
      >
        Put a tier on top
      </button>
    </section>
  )
}

/** The top tier once more, a tin or two narrower. */
function smaller(document: StackDocument): StackDocument['tiers'][number] {
  const top = document.tiers.at(-1)
  if (!top) return { body: { shape: 'round', diameter_mm: 160 }, layers: [] }
  const { dowels: _dowels, ...rest } = top
  const less = (mm: number) => Math.max(60, mm - 60)
  const body = top.body
  if (body.shape === 'round') return { ...rest, body: { ...body, diameter_mm: less(body.diameter_mm) } }
  if (body.shape === 'rectangle')
    return { ...rest, body: { ...body, length_mm: less(body.length_mm), width_mm: less(body.width_mm) } }
  return rest
}

function TierRow({ words, here, onSelect }: { words: string; here: boolean; onSelect: () => void }) {
  return (
    <button
      type="button"
      aria-current={here ? 'true' : undefined}
      className={`flex min-h-9 w-full items-center rounded-lg px-2 text-left font-head text-lead font-[640] pointer-coarse:min-h-11 ${
        here ? 'bg-rim-tint text-rim' : 'hover:bg-rim-tint'
      }`}
      onClick={onSelect}
    >
      {words}
    </button>
  )
}

interface PlaceRowProps {
  place: PlaceAnswer
  here: boolean
  onSelect: (path: string) => void
}

const INSIDE = ['soak', 'dam', 'insert']

function PlaceRow({ place, here, onSelect }: PlaceRowProps) {
  return (
    <li>
      <button
        type="button"
        aria-current={here ? 'true' : undefined}
        className={`flex min-h-8 w-full items-baseline gap-2 rounded-lg py-0.5 pr-2 text-left pointer-coarse:min-h-11 ${
          INSIDE.includes(place.kind) ? 'pl-8' : 'pl-2'
        } ${here ? 'bg-rim-tint' : 'hover:bg-rim-tint'}`}
        onClick={() => onSelect(place.path)}
      >
        <Swatch tint={place.tint} />
        <span className="min-w-0 flex-1 truncate">
          {place.words}
          <span className={place.name ? 'text-ink2' : 'font-[640] text-hot'}>
            {' '}
            {place.name ?? 'not chosen yet'}
          </span>
        </span>
        {place.standing !== 'holds' && (
          <span
            className={`shrink-0 text-small ${place.standing === 'trouble' ? 'font-[640] text-hot' : 'text-ink2'}`}
          >
            {place.standing === 'trouble' ? 'does not hold' : 'mind'}
          </span>
        )}
      </button>
    </li>
  )
}

interface AddToProps {
  document: StackDocument
  tier: number
  selected: string | null
  edit: Edit<StackDocument>
  onSelect: (path: string) => void
}

/** A choice of what a tier can be given more of; a layer goes above the selected one. */
function AddTo({ document, tier, selected, edit, onSelect }: AddToProps) {
  const path = `tiers.${tier}`
  const add = (key: string) => {
    const addition = ADDITIONS.find(([own]) => own === key)
    if (!addition) return
    const [, , field, begun] = addition
    const value = withBake(document, begunFor(document, tier, key, structuredClone(begun)))
    if (field === 'layers') {
      const [, owner, , layer] = (selected ?? '').split('.')
      const above =
        owner === String(tier) && layer !== undefined
          ? Number(layer) + 1
          : (document.tiers[tier]?.layers.length ?? 0)
      edit((own) => insertAt(own, `${path}.layers`, above, value))
      onSelect(`${path}.layers.${above}`)
    } else if (['borders', 'rosettes', 'pieces'].includes(field)) {
      const list = readAt(document, `${path}.${field}`)
      const at = Array.isArray(list) ? list.length : 0
      edit((own) => insertAt(own, `${path}.${field}`, at, value))
      onSelect(`${path}.${field}.${at}`)
    } else {
      edit((own) => writeAt(own, `${path}.${field}`, value))
      onSelect(`${path}.${field}`)
    }
  }
  const there = (field: string) =>
    (field === 'case.film' && readAt(document, `${path}.case`) == null) ||
    (!['layers', 'borders', 'rosettes', 'pieces'].includes(field) &&
      readAt(document, `${path}.${field}`) != null)
  return (
    <Select
      inline
      label={`Add to tier ${tier + 1}`}
      className="mt-0.5 ml-2 text-rim"
      value=""
      onChange={add}
      options={[
        ['', `Add to tier ${tier + 1}…`],
        ...ADDITIONS.filter(([, , field]) => !there(field)).map(([key, word]) => [key, word] as const),
      ]}
    />
  )
}

/** A new case has the form that goes with its shape. */
function begunFor(document: StackDocument, tier: number, key: string, begun: Record<string, unknown>) {
  return key === 'case' ? { form: { ...formFor(document.tiers[tier]?.body.shape ?? 'cup') } } : begun
}

/** A new sponge or case is of what is baked already. */
function withBake(document: StackDocument, value: Record<string, unknown>): Record<string, unknown> {
  const first = document.bakes?.[0]
  return (value.kind === 'sponge' || 'form' in value) && first ? { ...value, bake: first.key } : value
}
