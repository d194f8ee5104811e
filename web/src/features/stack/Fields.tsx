import type { ReactNode } from 'react'
import type { PlaceAnswer, StackDocument } from '../../api/client'
import type { Edit } from '../../desk/history'
import { readAt, writeAt } from '../../lib/path'
import { NumberField } from '../../ui/NumberField'
import { NUMBERS } from './fields'
import type { NumberSpec } from './fields'

export interface Known {
  /** Formulas that can be chosen, by key and name, with their job. */
  formulas: { id: string; name: string; job: string }[]
}

interface FieldsProps {
  place: PlaceAnswer
  document: StackDocument
  known: Known
  edit: Edit<StackDocument>
}

/** Jobs that fit a kind of place, the first ones offered first. */
const FITS: Record<string, string[]> = {
  soak: ['soak'],
  filling: ['fill', 'set', 'spoon', 'mask'],
  dam: ['fill', 'mask', 'pipe'],
  insert: ['set', 'fill'],
  crumb_coat: ['mask', 'fill'],
  coat: ['mask'],
  glaze: ['coat'],
  drip: ['drip', 'coat'],
  border: ['pipe', 'mask'],
  rosettes: ['pipe', 'mask'],
}

/** Everything that can be said of one place. */
export function Fields({ place, document, known, edit }: FieldsProps) {
  const at = (field: string) => `${place.path}.${field}`
  const put = (field: string, value: unknown, tag?: string) =>
    edit((own) => writeAt(own, at(field), value), tag ? at(field) : undefined)
  const node = readAt(document, place.path) as Record<string, unknown> | undefined
  if (!node) return null
  const shape = document.tiers[place.tier]?.body.shape ?? 'round'
  const brimmed = ['cup', 'loaf', 'dome', 'half_log', 'trough'].includes(shape)
  const made = place.kind === 'insert' && node.bake != null
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-2.5">
      {place.kind in FITS && !made && (
        <Choice
          label="Formula"
          value={String(node.component ?? '')}
          onChange={(key) => put('component', key || null)}
        >
          <option value="">choose a formula</option>
          <Formulas known={known} document={document} fits={FITS[place.kind] ?? []} />
        </Choice>
      )}
      {(place.kind === 'sponge' || made) && (
        <Choice label="Baked" value={String(node.bake ?? '')} onChange={(key) => put('bake', key || null)}>
          <option value="">choose what is baked</option>
          {(document.bakes ?? []).map((bake) => (
            <option key={bake.key} value={bake.key}>
              {bake.name}
            </option>
          ))}
        </Choice>
      )}
      {place.kind === 'filling' && (
        <Choice label="Is to" value={String(node.task ?? 'fill')} onChange={(task) => put('task', task)}>
          <option value="fill">bear what is above</option>
          <option value="set">stand, turned out</option>
          <option value="spoon">be eaten with a spoon</option>
        </Choice>
      )}
      {place.kind === 'soak' && (
        <Choice
          label="How moist"
          value={node.gram_per_gram == null ? String(node.grade ?? 'moist') : ''}
          onChange={(grade) =>
            edit((own) => writeAt(writeAt(own, at('grade'), grade), at('gram_per_gram'), null))
          }
        >
          {node.gram_per_gram != null && <option value="">as written</option>}
          <option value="light">light</option>
          <option value="moist">moist</option>
          <option value="drenched">drenched</option>
        </Choice>
      )}
      {place.kind === 'border' && (
        <>
          <Choice label="Piped as" value={String(node.style)} onChange={(style) => put('style', style)}>
            <option value="shell">shells</option>
            <option value="rope">a rope</option>
            <option value="dots">dots</option>
          </Choice>
          <Choice label="Round" value={String(node.edge ?? 'foot')} onChange={(edge) => put('edge', edge)}>
            <option value="foot">its foot</option>
            <option value="top">its top edge</option>
          </Choice>
        </>
      )}
      {place.kind === 'pieces' && (
        <label className="flex flex-col gap-1 text-[13px] text-ink2">
          What
          <input
            className="min-h-9 w-44 rounded-md border border-line2 bg-enamel px-2 text-[15px] text-ink pointer-coarse:min-h-11"
            maxLength={80}
            value={String(node.name ?? '')}
            onChange={(event) => put('name', event.target.value, 'name')}
          />
        </label>
      )}
      {NUMBERS[place.kind]
        .filter((spec) => !place.steps.some((step) => step.path === at(spec.field)))
        .map((spec) => (
          <OneNumber key={spec.field} spec={spec} place={place} node={node} put={put} />
        ))}
      {place.kind === 'filling' && node.thickness_mm != null && brimmed && (
        <button
          type="button"
          className="min-h-9 text-[14px] font-[640] text-rim underline pointer-coarse:min-h-11"
          onClick={() => put('thickness_mm', null)}
        >
          Take the rest of the height
        </button>
      )}
      {place.kind === 'drip' && (
        <label className="flex min-h-9 items-center gap-2">
          <input
            type="checkbox"
            className="h-5 w-5 accent-[var(--rim)]"
            checked={node.flood !== false}
            onChange={(event) => put('flood', event.target.checked)}
          />
          Flood the top
        </label>
      )}
    </div>
  )
}

interface OneNumberProps {
  spec: NumberSpec
  place: PlaceAnswer
  node: Record<string, unknown>
  put: (field: string, value: unknown, tag?: string) => void
}

function OneNumber({ spec, place, node, put }: OneNumberProps) {
  const written = readAt(node, spec.field)
  const rest = spec.field === 'thickness_mm' && place.kind === 'filling' && written == null
  const counted = spec.field === 'count' && written == null ? place.count : undefined
  const top = spec.field === 'top_mm' && written == null ? Number(node.side_mm) : undefined
  const value =
    typeof written === 'number' ? written : (counted ?? top ?? (rest ? place.thickness_mm : spec.usual))
  return (
    <span className="flex items-end gap-2">
      <NumberField
        label={rest ? `${spec.word}, the rest` : spec.word}
        unit={spec.unit}
        min={spec.min}
        max={spec.max}
        step={spec.step}
        value={Math.round(value * 100) / 100}
        onCommit={(next) => put(spec.field, next, 'number')}
      />
    </span>
  )
}

/** Formulas of the kitchen, those with a fitting job first; then what the cake brings. */
function Formulas({ known, document, fits }: { known: Known; document: StackDocument; fits: string[] }) {
  const good = known.formulas.filter((each) => fits.includes(each.job))
  const others = known.formulas.filter((each) => !fits.includes(each.job))
  const here = new Set(known.formulas.map((each) => each.id))
  const brought = (document.components ?? []).filter((each) => !here.has(each.key))
  const option = ({ id, name }: { id: string; name: string }) => (
    <option key={id} value={id}>
      {name}
    </option>
  )
  return (
    <>
      {brought.length > 0 && (
        <optgroup label="That came with the cake">
          {brought.map((each) => option({ id: each.key, name: each.document.name || each.document.family }))}
        </optgroup>
      )}
      <optgroup label={`Made to ${fits[0] ?? 'fill'}`}>{good.map(option)}</optgroup>
      <optgroup label="Others">{others.map(option)}</optgroup>
    </>
  )
}

interface ChoiceProps {
  label: string
  value: string
  onChange: (value: string) => void
  children: ReactNode
}

/** A labelled choice. */
export function Choice({ label, value, onChange, children }: ChoiceProps) {
  return (
    <label className="flex min-w-0 flex-col gap-1 text-[13px] text-ink2">
      {label}
      <select
        className="min-h-9 max-w-[260px] rounded-md border border-line2 bg-enamel px-2 text-[15px] text-ink pointer-coarse:min-h-11"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      >
        {children}
      </select>
    </label>
  )
}
