import type { PlaceAnswer, Size, StackDocument } from '../../api/client'
import type { Edit } from '../../desk/history'
import { readAt, writeAt } from '../../lib/path'
import { NumberField } from '../../ui/NumberField'
import { TextField } from '../../ui/TextField'
import { useBeginnings } from '../orders/queries'
import { FORMS } from './fields'
import { Tick } from '../../ui/Tick'
import { Select } from '../../ui/Select'

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
  film: ['coat', 'mask', 'drip'],
  pile: ['soak', 'coat'],
}

/** Everything that can be said of one place. */
export function Fields({ place, document, known, edit }: FieldsProps) {
  const sizes = useBeginnings().data?.sizes ?? []
  const at = (field: string) => `${place.path}.${field}`
  const put = (field: string, value: unknown, tag?: string) =>
    edit((own) => writeAt(own, at(field), value), tag ? at(field) : undefined)
  const node = readAt(document, place.path) as Record<string, unknown> | undefined
  if (!node) return null
  const shape = document.tiers[place.tier]?.body.shape ?? 'round'
  const brimmed = ['cup', 'loaf', 'dome', 'half_log', 'trough', 'tube'].includes(shape)
  const made = place.kind === 'insert' && node.bake != null
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-2.5">
      {place.kind in FITS && !made && (
        <Select
          label="Formula"
          value={String(node.component ?? '')}
          onChange={(key) => put('component', key || null)}
        >
          <option value="">choose a formula</option>
          <Formulas known={known} document={document} fits={FITS[place.kind] ?? []} />
        </Select>
      )}
      {place.kind === 'case' && (
        <Select
          label="Form"
          value={String(readAt(node, 'form.kind') ?? 'shell')}
          onChange={(kind) => put('form', { ...FORMS.find(([own]) => own === kind)?.[2] })}
          options={FORMS.map(([kind, word]) => [kind, word] as const)}
        />
      )}
      {(place.kind === 'sponge' || place.kind === 'case' || made) && (
        <Select
          label="Baked"
          value={String(node.bake ?? '')}
          onChange={(key) => put('bake', key || null)}
          options={[
            ['', 'choose what is baked'],
            ...(document.bakes ?? []).map((bake) => [bake.key, bake.name] as const),
          ]}
        />
      )}
      {place.kind === 'filling' && (
        <Select
          label="Is to"
          value={String(node.task ?? 'fill')}
          onChange={(task) => put('task', task)}
          options={[
            ['fill', 'bear what is above'],
            ['set', 'stand, turned out'],
            ['spoon', 'be eaten with a spoon'],
          ]}
        />
      )}
      {place.kind === 'soak' && (
        <Select
          label="How moist"
          value={node.gram_per_gram == null ? String(node.grade ?? 'moist') : ''}
          onChange={(grade) =>
            edit((own) => writeAt(writeAt(own, at('grade'), grade), at('gram_per_gram'), null))
          }
          options={[
            ...(node.gram_per_gram != null ? [['', 'as written'] as const] : []),
            ['light', 'light'],
            ['moist', 'moist'],
            ['drenched', 'drenched'],
          ]}
        />
      )}
      {place.kind === 'border' && (
        <>
          <Select
            label="Piped as"
            value={String(node.style)}
            onChange={(style) => put('style', style)}
            options={[
              ['shell', 'shells'],
              ['rope', 'a rope'],
              ['dots', 'dots'],
            ]}
          />
          <Select
            label="Round"
            value={String(node.edge ?? 'foot')}
            onChange={(edge) => put('edge', edge)}
            options={[
              ['foot', 'its foot'],
              ['top', 'its top edge'],
            ]}
          />
        </>
      )}
      {place.kind === 'pieces' && (
        <TextField
          label="What"
          className="w-44"
          maxLength={80}
          value={String(node.name ?? '')}
          onChange={(name) => put('name', name, 'name')}
        />
      )}
      {sizes
        .filter((spec) => spec.kind === place.kind)
        .filter((spec) => place.kind !== 'case' || hasField(node, spec.field))
        .filter((spec) => !place.steps.some((step) => step.path === at(spec.field)))
        .map((spec) => (
          <OneNumber key={spec.field} spec={spec} place={place} node={node} put={put} />
        ))}
      {place.kind === 'filling' && node.thickness_mm != null && brimmed && (
        <button
          type="button"
          className="min-h-9 text-note font-[640] text-rim underline pointer-coarse:min-h-11"
          onClick={() => put('thickness_mm', null)}
        >
          Take the rest of the height
        </button>
      )}
      {place.kind === 'drip' && (
        <Tick checked={node.flood !== false} onChange={(flood) => put('flood', flood)}>
          Flood the top
        </Tick>
      )}
    </div>
  )
}

/** Whether a case of its form has such a size. */
function hasField(node: Record<string, unknown>, field: string): boolean {
  const kind = readAt(node, 'form.kind')
  const begun = FORMS.find(([own]) => own === kind)?.[2]
  return begun !== undefined && field.replace('form.', '') in begun
}

interface OneNumberProps {
  spec: Size
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
        min={spec.least}
        max={spec.most}
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
