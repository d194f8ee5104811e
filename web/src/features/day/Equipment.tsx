import type { KitchenDocument } from '../../api/client'
import { Button } from '../../ui/Button'
import { NumberField } from '../../ui/NumberField'
import { Select } from '../../ui/Select'
import { TextField } from '../../ui/TextField'
import { laneWord } from './strip'
import { TakeOut } from './TakeOut'

type Own = KitchenDocument['equipment']
type Out = NonNullable<KitchenDocument['out_of_use']>[number]

interface EquipmentProps {
  document: KitchenDocument
  put: (next: Partial<KitchenDocument>, tag?: string) => void
  fault: (field: string) => string | undefined
}

const COUNTS = [
  ['hobs', 'Places on the hob', 20],
  ['microwaves', 'Microwaves', 10],
  ['blenders', 'Stick blenders', 10],
  ['ice', 'Bowls in iced water at a time', 10],
  ['blast_trays', 'Trays of a blast chiller', 200],
  ['rack_trays', 'Trays on racks', 200],
] as const

const WHAT: readonly Out['what'][] = [
  'mixer',
  'oven',
  'hob',
  'microwave',
  'blender',
  'ice',
  'fridge',
  'freezer',
]

/** What stands in the kitchen, and when something of it is out of use. */
export function Equipment({ document, put, fault }: EquipmentProps) {
  const own = document.equipment
  const set = (next: Partial<Own>) => put({ equipment: { ...own, ...next } })
  const out = document.out_of_use ?? []
  const setOut = (at: number, next: Partial<Out>, tag?: string) =>
    put({ out_of_use: out.map((each, place) => (place === at ? { ...each, ...next } : each)) }, tag)
  return (
    <>
      <section aria-label="Machines" className="flex flex-col gap-2">
        <h2 className="text-title">Machines</h2>
        <Each
          title="Mixer"
          unit="l bowl"
          values={own.mixers_l}
          begin={7}
          min={0.5}
          max={200}
          fault={(at) => fault(`equipment.mixers_l.${at}`)}
          onChange={(mixers_l) => set({ mixers_l })}
        />
        <Each
          title="Oven"
          unit="trays"
          values={own.ovens_trays}
          begin={4}
          min={1}
          max={100}
          fault={(at) => fault(`equipment.ovens_trays.${at}`)}
          onChange={(all) => set({ ovens_trays: all.map(Math.round) })}
        />
        <div className="flex flex-wrap gap-x-6 gap-y-2">
          {COUNTS.map(([key, words, max]) => (
            <NumberField
              key={key}
              label={words}
              unit=""
              value={own[key] ?? 0}
              min={0}
              max={max}
              step={1}
              onCommit={(value) => set({ [key]: Math.round(value) })}
            />
          ))}
        </div>
      </section>
      <section aria-label="Cold" className="flex flex-col gap-2">
        <h2 className="text-title">Cold</h2>
        {(['fridge', 'freezer'] as const).map((place) => (
          <div key={place}>
            <b>{laneWord(place)}</b>
            <div className="flex flex-wrap gap-x-6 gap-y-2">
              <NumberField
                label="Shelves"
                unit=""
                value={own[place].shelves}
                min={0}
                max={200}
                step={1}
                fault={fault(`equipment.${place}`)}
                onCommit={(shelves) => set({ [place]: { ...own[place], shelves: Math.round(shelves) } })}
              />
              <NumberField
                label="Of each"
                unit="cm²"
                value={own[place].area_cm2}
                min={100}
                max={50000}
                step={100}
                onCommit={(area_cm2) => set({ [place]: { ...own[place], area_cm2 } })}
              />
              <NumberField
                label="Apart"
                unit="mm"
                value={own[place].spacing_mm}
                min={20}
                max={2000}
                step={10}
                onCommit={(spacing_mm) => set({ [place]: { ...own[place], spacing_mm } })}
              />
            </div>
          </div>
        ))}
        <h2 className="mt-2 text-title">Out of use</h2>
        <ul className="flex flex-col gap-2">
          {out.map((each, at) => (
            <li key={at} className="flex flex-wrap items-end gap-3">
              <Select
                label="What"
                value={each.what}
                options={WHAT.map((key) => [key, laneWord(key)] as const)}
                onChange={(what) => setOut(at, { what })}
              />
              {(['from', 'to'] as const).map((end) => (
                <TextField
                  key={end}
                  label={end}
                  type="datetime-local"
                  value={each[end].slice(0, 16)}
                  className="w-52"
                  fault={fault(`out_of_use.${at}.${end}`)}
                  onChange={(text) => text && setOut(at, { [end]: `${text}:00` }, `${end}-${at}`)}
                />
              ))}
              <NumberField
                label="Left of it"
                unit=""
                value={each.left ?? 0}
                min={0}
                max={1000}
                step={1}
                onCommit={(left) => setOut(at, { left: Math.round(left) })}
              />
              <TakeOut
                what={`row ${at + 1} of what is out of use`}
                onClick={() => put({ out_of_use: out.filter((_, place) => place !== at) })}
              />
            </li>
          ))}
        </ul>
        <div>
          <Button
            look="quiet"
            className="px-2"
            onClick={() => {
              const day = new Date().toISOString().slice(0, 10)
              put({
                out_of_use: [
                  ...out,
                  { what: 'oven', from: `${day}T08:00:00`, to: `${day}T12:00:00`, left: 0 },
                ],
              })
            }}
          >
            Something is out of use
          </Button>
        </div>
      </section>
    </>
  )
}

interface EachProps {
  title: string
  unit: string
  values: number[]
  begin: number
  min: number
  max: number
  fault: (at: number) => string | undefined
  onChange: (values: number[]) => void
}

/** Several of a machine, each with its size. */
function Each({ title, unit, values, begin, min, max, fault, onChange }: EachProps) {
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-1">
      {values.map((value, at) => (
        <span key={at} className="flex items-end gap-1">
          <NumberField
            label={values.length > 1 ? `${title} ${at + 1}` : title}
            unit={unit}
            value={value}
            min={min}
            max={max}
            step={1}
            fault={fault(at)}
            onCommit={(next) => onChange(values.map((own, place) => (place === at ? next : own)))}
          />
          <TakeOut
            what={`${title.toLowerCase()} ${at + 1}`}
            onClick={() => onChange(values.filter((_, place) => place !== at))}
          />
        </span>
      ))}
      <Button
        look="quiet"
        className="px-2"
        disabled={values.length >= 10}
        onClick={() => onChange([...values, begin])}
      >
        {values.length === 0 ? `A ${title.toLowerCase()}` : `One ${title.toLowerCase()} more`}
      </Button>
    </div>
  )
}
