import type { Bake, Beginnings, StackDocument } from '../../api/client'
import type { Edit } from '../../desk/history'
import { useIngredients } from '../../lib/ingredients'
import { insertAt, writeAt } from '../../lib/path'
import { Button } from '../../ui/Button'
import { NumberField } from '../../ui/NumberField'
import { Sheet } from '../../ui/Sheet'
import { useBeginnings } from '../orders/queries'
import { TextField } from '../../ui/TextField'
import { Select } from '../../ui/Select'

interface BakesSheetProps {
  document: StackDocument
  edit: Edit<StackDocument>
  onClose: () => void
}

/** What is baked for the cake: its kind, which says what it drinks, and its batter. */
export function BakesSheet({ document, edit, onClose }: BakesSheetProps) {
  const beginnings = useBeginnings()
  const bakes = document.bakes ?? []
  const add = (bake: Bake) => {
    const keys = bakes.map((own) => own.key)
    let key = bake.key
    for (let n = 2; keys.includes(key); n += 1) key = `${bake.key}-${n}`
    edit((own) => insertAt(own, 'bakes', bakes.length, { ...bake, key }))
  }
  return (
    <Sheet
      open
      wide
      onOpenChange={(open) => !open && onClose()}
      title="Bakes"
      lead="Sponges and bases of this cake. The kind says how heavy it is, what it drinks and how it tears; the batter goes on the lists."
    >
      <div className="flex min-h-0 flex-col gap-5 overflow-y-auto p-1">
        {bakes.map((bake, at) => (
          <BakeFields
            key={bake.key}
            bake={bake}
            path={`bakes.${at}`}
            sponges={beginnings.data?.sponges ?? []}
            baking={beginnings.data?.bakings.find((own) => own.sponge === bake.sponge)?.words ?? null}
            edit={edit}
          />
        ))}
        {bakes.length === 0 && <p className="text-ink2">Nothing is baked for it yet.</p>}
        <Select
          label="Add"
          className="max-w-65"
          value=""
          onChange={(key) => {
            const begun = beginnings.data?.bakes.find((own) => own.key === key)
            if (begun) add(begun)
          }}
          options={[
            ['', 'Add a bake…'],
            ...(beginnings.data?.bakes ?? []).map((bake) => [bake.key, bake.name] as const),
          ]}
        />
      </div>
      <Button look="primary" onClick={onClose}>
        Back to the cake
      </Button>
    </Sheet>
  )
}

interface BakeFieldsProps {
  bake: Bake
  path: string
  sponges: Beginnings['sponges']
  /** How its kind is baked, in words. */
  baking: string | null
  edit: Edit<StackDocument>
}

function BakeFields({ bake, path, sponges, baking, edit }: BakeFieldsProps) {
  const shelf = useIngredients('', true)
  const put = (field: string, value: unknown, tag?: string) =>
    edit((own) => writeAt(own, `${path}.${field}`, value), tag ? `${path}.${field}` : undefined)
  const kind = sponges.find((own) => own.key === bake.sponge)
  const lines = bake.lines ?? []
  return (
    <fieldset className="border-t border-line pt-3 first:border-0 first:pt-0">
      <legend className="sr-only">{bake.name}</legend>
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2.5">
        <TextField
          label="Name"
          className="w-52"
          maxLength={120}
          value={bake.name}
          onChange={(name) => put('name', name, 'name')}
        />
        <Select
          label="Kind"
          value={bake.sponge}
          onChange={(key) => put('sponge', key)}
          options={[...sponges.map((own) => [own.key, own.word] as const)]}
        />
        <NumberField
          label="Weight of a litre, baked"
          unit="g"
          min={80}
          max={1500}
          step={10}
          value={bake.bulk_kg_m3 ?? kind?.bulk_kg_m3 ?? 300}
          onCommit={(value) => put('bulk_kg_m3', value)}
        />
        <NumberField
          label="Crumb tears at"
          unit="Pa"
          min={50}
          max={100000}
          step={100}
          value={bake.crumb_strength_pa ?? 1500}
          onCommit={(value) => put('crumb_strength_pa', value)}
        />
        <NumberField
          label="Lost in the oven"
          unit="%"
          min={0}
          max={50}
          step={1}
          value={bake.oven_loss_percent ?? 10}
          onCommit={(value) => put('oven_loss_percent', value)}
        />
        <Button look="quiet" className="px-3" onClick={() => edit((own) => writeAt(own, path, null))}>
          Take it away
        </Button>
      </div>
      {baking && <p className="mt-1.5 text-note text-ink2">{baking} Usual figures; your oven decides.</p>}
      <ul
        aria-label={`Batter of ${bake.name}`}
        className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(330px,1fr))] gap-x-6 gap-y-1"
      >
        {lines.map((line, at) => (
          <li key={at} className="flex items-center gap-2">
            <TextField
              inline
              label={`Amount of line ${at + 1}`}
              className="w-24 text-right font-[640]"
              maxLength={60}
              value={line.amount}
              onChange={(amount) => put(`lines.${at}.amount`, amount, 'amount')}
            />
            <Select
              inline
              label={`Ingredient of line ${at + 1}`}
              className="flex-1"
              value={line.ingredient}
              onChange={(key) => put(`lines.${at}.ingredient`, key)}
              options={[
                ...(shelf.data?.some((own) => own.ingredient === line.ingredient)
                  ? []
                  : [[line.ingredient, line.ingredient] as const]),
                ...(shelf.data ?? []).map((own) => [own.ingredient, own.name] as const),
              ]}
            />
            <Button
              look="quiet"
              className="px-2"
              aria-label={`Take line ${at + 1} away`}
              onClick={() => put(`lines.${at}`, null)}
            >
              ×
            </Button>
          </li>
        ))}
      </ul>
      <Button
        className="mt-2 px-3"
        onClick={() =>
          edit((own) => insertAt(own, `${path}.lines`, lines.length, { ingredient: 'sugar', amount: '10 g' }))
        }
      >
        Add a line
      </Button>
    </fieldset>
  )
}
