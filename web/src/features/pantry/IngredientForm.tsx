import { useEffect, useRef, useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import type { Fault, IngredientDetail, IngredientDocument, Part } from '../../api/client'
import { ProblemError } from '../../api/client'
import { DraftNotice } from '../../desk/DraftNotice'
import { dropDraft, putDraft } from '../../desk/drafts'
import { same } from '../../desk/same'
import { useFoundDraft } from '../../desk/useFoundDraft'
import type { Found } from '../../desk/useFoundDraft'
import { useKeepsDrafts } from '../../desk/useSaving'
import { numberOrNull } from '../../lib/number'
import { Button } from '../../ui/Button'
import { TextNumber } from '../../ui/TextNumber'
import { CompositionTable } from './CompositionTable'
import { ALLERGENS, begin, keyFor, ORIGINS, read, SHELVES, unreadable } from './draft'
import type { IngredientDraft } from './draft'
import { LabelFields } from './LabelFields'
import { useIngredient, useSaveIngredient } from './queries'

interface IngredientFormProps {
  /** The ingredient it starts from: a copy, or itself when it is changed; none for a new one. */
  from: string | null
  edit: boolean
}

/** An ingredient of the kitchen's own: from a label, from a copy, or changed. */
export function IngredientForm({ from, edit }: IngredientFormProps) {
  const detail = useIngredient(from ?? undefined)
  const [asked] = useSearchParams()
  const found = useFoundDraft('ingredient', edit ? from : null, asked.get('draft'))
  if (from && detail.isError) return <p className="pt-8 text-hot">{detail.error?.message}</p>
  if ((from && !detail.data) || !found) return <div aria-busy="true" />
  return <Form detail={detail.data} edit={edit} found={found} />
}

interface FormProps {
  detail: IngredientDetail | undefined
  edit: boolean
  /** Unsaved work on it, and under what it is kept. */
  found: Found
}

function Form({ detail, edit, found }: FormProps) {
  const [first] = useState(() => begin(detail, edit))
  const [draft, setDraft] = useState(() => (found.draft?.document as IngredientDraft | undefined) ?? first)
  const [restored, setRestored] = useState(found.draft?.at ?? null)
  // A form found again was begun at its own revision: another save since then is told, not written over.
  const [revision, setRevision] = useState(edit ? (found.draft?.basedOn ?? detail?.revision ?? 0) : 0)
  const dirty = !same(draft, first)
  const thing = edit ? (detail?.entry.ingredient ?? null) : null
  const { id: draftId } = found
  const done = useRef(false)
  useEffect(() => {
    if (done.current) return
    const { name } = draft
    if (dirty)
      void putDraft({ id: draftId, noun: 'ingredient', thing, basedOn: revision, name, document: draft })
    else void dropDraft(draftId)
  }, [draft, dirty, draftId, thing, revision])
  const [faults, setFaults] = useState<Fault[]>([])
  const save = useSaveIngredient()
  const keeps = useKeepsDrafts()
  const navigate = useNavigate()
  const set = (change: Partial<IngredientDraft>) => setDraft((now) => ({ ...now, ...change }))
  const sum = Object.values(draft.parts).reduce((all, text) => all + (numberOrNull(text) ?? 0), 0)
  const off = Math.abs(sum - 100) > 0.5
  const faultAt = (field: string) =>
    faults.find((fault) => fault.field === field || fault.field === `document.${field}`)?.message

  const keep = () => {
    const bad = unreadable(draft)
    if (bad.length > 0) return setFaults(bad)
    const document: IngredientDocument = read(
      draft,
      edit && detail ? detail.entry.ingredient : keyFor(draft.name),
    )
    setFaults([])
    save.mutate(
      { document, revision },
      {
        onSuccess: (saved) => {
          done.current = true
          void dropDraft(draftId)
          void navigate(`/pantry/${saved.entry.ingredient}`)
        },
        onError: (error) => {
          if (!(error instanceof ProblemError)) return
          if (error.problem.status === 409) {
            const message = edit
              ? 'somebody saved it since you opened this: open it again to see theirs'
              : 'an ingredient of this name is there already: give yours another name'
            setFaults([{ field: 'name', code: 'taken', message }])
          } else setFaults(error.problem.errors ?? [])
        },
      },
    )
  }
  const title = edit
    ? `Change ${detail?.entry.name ?? ''}`
    : detail
      ? `A copy of ${detail.entry.name}`
      : 'From its label'
  return (
    <form
      className="flex flex-col gap-4"
      aria-label={title}
      onSubmit={(event) => {
        event.preventDefault()
        keep()
      }}
    >
      <h2 className="text-[27px] leading-tight">{title}</h2>
      <DraftNotice
        restored={restored}
        elsewhere={found.elsewhere ? 'open' : null}
        dirty={dirty}
        onThrowAway={() => {
          setDraft(first)
          setRestored(null)
          setRevision(edit ? (detail?.revision ?? 0) : 0)
        }}
      />
      <div className="flex flex-wrap items-end gap-4">
        <label className="flex min-w-64 flex-1 flex-col gap-1">
          Name
          <input
            className={`min-h-10 rounded-lg border bg-enamel px-2 text-[17px] font-[640] pointer-coarse:min-h-11 ${
              faultAt('name') ? 'border-hot' : 'border-line2'
            }`}
            maxLength={120}
            autoComplete="off"
            aria-invalid={faultAt('name') ? true : undefined}
            value={draft.name}
            onChange={(event) => set({ name: event.target.value })}
          />
        </label>
        <label className="flex flex-col gap-1">
          Shelf
          <select
            className="min-h-10 rounded-lg border border-line2 bg-enamel px-2 pointer-coarse:min-h-11"
            value={draft.group}
            onChange={(event) => set({ group: event.target.value })}
          >
            {SHELVES.map((each) => (
              <option key={each}>{each}</option>
            ))}
          </select>
        </label>
      </div>
      {!edit && !detail && (
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
        <legend className="mb-1 font-head text-[17px] font-[640]">Allergens it brings</legend>
        {ALLERGENS.map((allergen) => (
          <Tick
            key={allergen}
            words={allergen}
            on={draft.allergens.includes(allergen)}
            onTick={(on) =>
              set({
                allergens: on
                  ? [...draft.allergens, allergen]
                  : draft.allergens.filter((each) => each !== allergen),
              })
            }
          />
        ))}
      </fieldset>
      <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
        <legend className="mb-1 font-head text-[17px] font-[640]">Where it comes from</legend>
        {ORIGINS.map((origin) => (
          <Tick
            key={origin}
            words={origin}
            on={draft.origins.includes(origin)}
            onTick={(on) =>
              set({
                origins: on ? [...draft.origins, origin] : draft.origins.filter((each) => each !== origin),
              })
            }
          />
        ))}
      </fieldset>
      <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
        <legend className="mb-1 font-head text-[17px] font-[640]">What the numbers cannot tell</legend>
        <Tick
          words="its fat sits in droplets, as in cream and milk"
          on={draft.fatInGlobules}
          onTick={(fatInGlobules) => set({ fatInGlobules })}
        />
        <Tick
          words="raw pineapple, kiwi, papaya, fig or ginger"
          on={draft.rawProtease}
          onTick={(rawProtease) => set({ rawProtease })}
        />
        <Tick words="raw egg" on={draft.rawEgg} onTick={(rawEgg) => set({ rawEgg })} />
        <Tick
          words="starch that swells cold"
          on={draft.coldStarch}
          onTick={(coldStarch) => set({ coldStarch })}
        />
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
      {(faults.length > 0 || (save.isError && faults.length === 0)) && (
        <ul role="alert" className="text-hot">
          {faults.length === 0 && (
            <li>
              Not saved: {save.error?.message} {keeps && 'What you wrote is kept on this device.'}
            </li>
          )}
          {faults.map((fault) => (
            <li key={fault.field + fault.message}>Not saved: {fault.message}</li>
          ))}
        </ul>
      )}
      <div className="flex gap-3">
        <Button type="submit" look="primary" disabled={save.isPending || off || draft.name.trim() === ''}>
          {edit ? 'Save version' : 'Put it on the shelf'}
        </Button>
        <Button onClick={() => void navigate(detail ? `/pantry/${detail.entry.ingredient}` : '/pantry')}>
          Leave it
        </Button>
      </div>
    </form>
  )
}

function Tick({ words, on, onTick }: { words: string; on: boolean; onTick: (on: boolean) => void }) {
  return (
    <label className="flex min-h-7 items-center gap-1.5 pointer-coarse:min-h-11">
      <input type="checkbox" checked={on} onChange={(event) => onTick(event.target.checked)} />
      {words}
    </label>
  )
}
