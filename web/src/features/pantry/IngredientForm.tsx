import { useCallback, useEffect, useMemo, useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import type { Fault, Part } from '../../api/client'
import { DraftNotice } from '../../desk/DraftNotice'
import { useHistory } from '../../desk/history'
import { SavePanel } from '../../desk/SavePanel'
import { useDeskKeys } from '../../desk/useDeskKeys'
import { useOpened } from '../../desk/useOpened'
import type { Looked } from '../../desk/useOpened'
import { useSaving } from '../../desk/useSaving'
import type { Opened } from '../../desk/useSaving'
import { useIngredients } from '../../lib/ingredients'
import { numberOrNull } from '../../lib/number'
import { Button } from '../../ui/Button'
import { TextNumber } from '../../ui/TextNumber'
import { CompositionTable } from './CompositionTable'
import { begin, fromDocument, keyFor, read, unreadable } from './draft'
import type { IngredientDraft } from './draft'
import { LabelFields } from './LabelFields'
import { INGREDIENT, useIngredient } from './queries'
import { Select } from '../../ui/Select'
import { TextField } from '../../ui/TextField'
import { Tick } from '../../ui/Tick'
import { useWords } from '../../lib/words'

interface IngredientFormProps {
  /** The ingredient it starts from: a copy, or itself when it is changed; none for a new one. */
  from: string | null
  edit: boolean
}

/** What the kitchen's file has of an ingredient, or what a new one begins with. */
function useLooked(from: string | null, edit: boolean): Looked<IngredientDraft> {
  const detail = useIngredient(from ?? undefined)
  if (from && detail.isError && !detail.data) {
    return { wrong: detail.error?.message ?? '', gone: true, again: () => void detail.refetch() }
  }
  if (from && !detail.data) return null
  const begun = begin(detail.data, edit)
  if (!edit) return { saved: null, begun, basedOn: 0 }
  return { saved: begun, begun: null, basedOn: detail.data?.revision ?? 0 }
}

/** An ingredient of the kitchen's own: from a label, from a copy, or changed. */
export function IngredientForm({ from, edit }: IngredientFormProps) {
  const [asked] = useSearchParams()
  const { opened, wrong } = useOpened(
    'ingredient',
    edit ? from : null,
    asked.get('draft'),
    useLooked(from, edit),
  )
  const copied = useIngredient(from ?? undefined)
  if (opened) return <Form opened={opened} from={from} name={copied.data?.entry.name ?? null} edit={edit} />
  if (wrong) return <p className="pt-8 text-hot">{wrong.words}</p>
  return <div aria-busy="true" />
}

interface FormProps {
  opened: Opened<IngredientDraft>
  /** The ingredient it starts from, and its name. */
  from: string | null
  name: string | null
  edit: boolean
}

function Form({ opened, from, name, edit }: FormProps) {
  const words = useWords()
  const history = useHistory(opened.document)
  const { document: draft, edit: change } = history
  const navigate = useNavigate()
  const toCard = useCallback((key: string) => void navigate(`/pantry/${key}`), [navigate])
  const key = opened.thing ?? keyFor(draft.name)
  const outgoing = useMemo(() => read(draft, key), [draft, key])
  const saving = useSaving(INGREDIENT, opened, draft, outgoing, toCard)
  const { state, dirty, thing } = saving
  useEffect(() => {
    // Saved as it stands: the card shows it. What was typed meanwhile keeps the form open.
    if (state.kind === 'saved' && !dirty && thing !== null) toCard(thing)
  }, [state, dirty, thing, toCard])
  const [unread, setUnread] = useState<Fault[]>([])
  const set = (some: Partial<IngredientDraft>) => {
    const tag = Object.keys(some).join(' ')
    change((now) => ({ ...now, ...some }), tag === 'parts sources' ? undefined : tag)
  }
  const sum = Object.values(draft.parts).reduce((all, text) => all + (numberOrNull(text) ?? 0), 0)
  const off = Math.abs(sum - 100) > 0.5
  const faults = unread.length > 0 ? unread : state.kind === 'refused' ? state.faults : []
  const faultAt = (field: string) =>
    faults.find((fault) => fault.field === field || fault.field === `document.${field}`)?.message
  const unfit = off || draft.name.trim() === ''
  const keep = () => {
    if (unfit) return
    const bad = unreadable(draft)
    setUnread(bad)
    if (bad.length === 0) saving.save()
  }
  useDeskKeys('Own ingredient', { save: keep, undo: history.undo, redo: history.redo })
  const title = edit ? `Change ${name ?? draft.name}` : name ? `A copy of ${name}` : 'From its label'
  const kept = opened.saved
  return (
    <form
      className="flex flex-col gap-4"
      aria-label={title}
      onSubmit={(event) => {
        event.preventDefault()
        keep()
      }}
    >
      <h2 className="text-display leading-tight">{title}</h2>
      <DraftNotice saving={saving} onBack={kept && (() => history.load(kept))} />
      <div className="flex flex-wrap items-end gap-4">
        <span className="min-w-64 flex-1">
          <TextField
            label="Name"
            className="w-full font-[640]"
            maxLength={120}
            value={draft.name}
            onChange={(name) => set({ name })}
            fault={faultAt('name')}
          />
        </span>
        <Select
          label="Shelf"
          value={draft.group}
          onChange={(group) => set({ group })}
          options={words.shelves.map((each) => [each, each] as const)}
        />
        <Replaces
          own={key}
          group={draft.group}
          value={draft.replaces ?? ''}
          onChange={(replaces) => set({ replaces })}
        />
      </div>
      {!edit && !from && (
        <LabelFields
          onInferred={(inferred, label) =>
            set({
              label,
              parts: Object.fromEntries(
                Object.entries(inferred.composition_percent).map(([part, percent]) => [
                  part,
                  String(Math.round(percent * 100) / 100),
                ]),
              ),
              sources: Object.fromEntries(
                inferred.inferences.map((each) => [each.part, each.why]),
              ) as Partial<Record<Part, string>>,
              fatInGlobules: inferred.fat_in_globules,
            })
          }
          onKind={(group, origins) => set({ group, origins })}
        />
      )}
      <CompositionTable
        parts={draft.parts}
        sources={draft.sources}
        onPart={(part, text) =>
          set({
            parts: { ...draft.parts, [part]: text },
            sources: { ...draft.sources, [part]: 'written by hand' },
          })
        }
      />
      <p role="status" className={off && sum > 0 ? 'font-[640] text-hot' : ''}>
        Adds up to <b>{sum.toFixed(1)} g</b> of 100.
        {off && sum > 0 && ` ${sum > 100 ? 'Take' : 'Add'} ${Math.abs(sum - 100).toFixed(1)} g somewhere.`}
      </p>
      <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
        <legend className="mb-1 font-head text-lead font-[640]">Allergens it brings</legend>
        {words.wrong && (
          <p role="alert" className="w-full text-hot">
            The list of allergens cannot be read, and none can be ticked: {words.wrong}
          </p>
        )}
        {words.allergens.map((allergen) => (
          <Tick
            key={allergen}
            checked={draft.allergens.includes(allergen)}
            onChange={(on) =>
              set({
                allergens: on
                  ? [...draft.allergens, allergen]
                  : draft.allergens.filter((each) => each !== allergen),
              })
            }
          >
            {allergen}
          </Tick>
        ))}
      </fieldset>
      <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
        <legend className="mb-1 font-head text-lead font-[640]">Where it comes from</legend>
        {words.origins.map((origin) => (
          <Tick
            key={origin}
            checked={draft.origins.includes(origin)}
            onChange={(on) =>
              set({
                origins: on ? [...draft.origins, origin] : draft.origins.filter((each) => each !== origin),
              })
            }
          >
            {origin}
          </Tick>
        ))}
      </fieldset>
      <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
        <legend className="mb-1 font-head text-lead font-[640]">What the numbers cannot tell</legend>
        <Tick checked={draft.fatInGlobules} onChange={(fatInGlobules) => set({ fatInGlobules })}>
          its fat sits in droplets, as in cream and milk
        </Tick>
        <Tick checked={draft.rawProtease} onChange={(rawProtease) => set({ rawProtease })}>
          raw pineapple, kiwi, papaya, fig or ginger
        </Tick>
        <Tick checked={draft.rawEgg} onChange={(rawEgg) => set({ rawEgg })}>
          raw egg
        </Tick>
        <Tick checked={draft.coldStarch} onChange={(coldStarch) => set({ coldStarch })}>
          starch that swells cold
        </Tick>
      </fieldset>
      <div className="flex flex-wrap gap-5">
        <TextNumber
          label="Density, g/ml"
          value={draft.density}
          onChange={(density) => set({ density })}
          placeholder="computed"
          fault={faultAt('density_g_per_ml')}
        />
        <TextNumber
          label="A pack weighs, g"
          value={draft.packG}
          onChange={(packG) => set({ packG })}
          fault={faultAt('pack.pack_g')}
        />
        <TextNumber
          label="and costs"
          value={draft.packPrice}
          onChange={(packPrice) => set({ packPrice })}
          fault={faultAt('pack.pack_price')}
        />
        {(numberOrNull(draft.parts.gelatin ?? '') ?? 0) > 0 && (
          <TextNumber
            label="Bloom strength, g"
            value={draft.bloom}
            onChange={(bloom) => set({ bloom })}
            fault={faultAt('bloom_g')}
          />
        )}
      </div>
      {unread.length > 0 && (
        <ul role="alert" className="text-hot">
          {unread.map((fault) => (
            <li key={fault.field}>Not saved: {fault.message}</li>
          ))}
        </ul>
      )}
      <div className="max-w-md">
        <SavePanel
          keeping={INGREDIENT}
          saving={saving}
          steps={history}
          name={draft.name}
          begin="Put it on the shelf"
          take="Take in hand"
          unfit={unfit}
          submits
          inHand={fromDocument}
          onLoad={(next) => change(() => next)}
        />
        <Button
          look="quiet"
          className="mt-2"
          onClick={() => void navigate(from ? `/pantry/${from}` : '/pantry')}
        >
          Leave it
        </Button>
      </div>
    </form>
  )
}

interface ReplacesProps {
  own: string
  group: string
  value: string
  onChange: (key: string) => void
}

/** In whose place it is bought: what the kitchen's tests taught of that holds for this as well, in part. */
function Replaces({ own, group, value, onChange }: ReplacesProps) {
  const shelf = useIngredients('', true)
  const listed = (shelf.data ?? [])
    .filter((entry) => entry.ingredient !== own && (entry.group === group || entry.ingredient === value))
    .map((entry) => [entry.ingredient, entry.name] as const)
  const known = value === '' || listed.some(([key]) => key === value)
  return (
    <Select
      label="Bought in the place of"
      className="max-w-72"
      value={value}
      onChange={onChange}
      options={[
        ['', 'nothing: it begins with the book'],
        ...(known ? [] : [[value, value] as const]),
        ...listed,
      ]}
    />
  )
}
