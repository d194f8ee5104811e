import { Slider } from 'radix-ui'
import type { ClockAnswer, Fault, FormulaDocument, StandDocument } from '../../api/client'
import { Button } from '../../ui/Button'
import { NumberField } from '../../ui/NumberField'
import { Select } from '../../ui/Select'
import { TextField } from '../../ui/TextField'
import { Tick } from '../../ui/Tick'
import { useKitchen, useSaveKitchen } from '../kitchen/queries'
import { COUNTED, COVERED, OF_AIR, PLACES, RULES, SIZES, STIRS, VESSELS } from './choice'
import type { ClockChoice, Rule, Size } from './choice'

interface ClockFieldsProps {
  choice: ClockChoice
  told: ClockAnswer | undefined
  document: FormulaDocument
  faults: Fault[]
  onChoice: (choice: ClockChoice) => void
}

const STIR: readonly (readonly [string, string])[] = [
  ['', 'not stirred'],
  ['0', 'stirred all the time'],
  ['2', 'stirred every 2 min'],
  ['5', 'stirred every 5 min'],
  ['15', 'stirred every 15 min'],
]
/** A stay that is followed by another begins with so long, min. */
const FIRST_STAY_MIN = 20

/** In what it stands, where, from how warm. */
export function ClockFields({ choice, told, document, faults, onChoice }: ClockFieldsProps) {
  const { vessel, places } = choice
  const set = (change: Partial<ClockChoice>) => onChoice({ ...choice, ...change })
  const fault = (field: string) => faults.find((own) => own.field === field)?.message
  const place = (at: number, change: Partial<StandDocument>) =>
    set({ places: places.map((own, k) => (k === at ? { ...own, ...change } : own)) })
  const covered = COVERED[vessel.kind]
  const room = choice.roomC ?? document.work.room_temperature_c
  return (
    <div className="flex flex-col gap-3">
      <Select
        label="In"
        value={vessel.kind}
        onChange={(kind) =>
          set({
            vessel: { kind },
            places: places.map((own) => (STIRS.has(kind) ? own : { ...own, stir_min: null })),
          })
        }
        options={VESSELS}
      />
      {SIZES[vessel.kind].map((size) => (
        <Drag
          key={size.field}
          size={size}
          value={vessel[size.field] ?? shown(size, told)}
          fault={fault(`vessel.${size.field}`)}
          onChange={(mm) => set({ vessel: { ...vessel, [size.field]: mm } })}
        />
      ))}
      <div className="flex flex-wrap items-end gap-3">
        <NumberField
          label="How much"
          unit="kg"
          value={Math.round(1000 * (choice.kg ?? told?.vessel.kg ?? 1)) / 1000}
          min={0.01}
          max={500}
          step={0.1}
          fault={fault('kg')}
          onCommit={(kg) => set({ kg })}
        />
        {COUNTED.has(vessel.kind) && (
          <NumberField
            label="In so many"
            unit=""
            value={vessel.count ?? 1}
            min={1}
            max={200}
            step={1}
            fault={fault('vessel.count')}
            onCommit={(count) => set({ vessel: { ...vessel, count: Math.round(count) } })}
          />
        )}
      </div>
      {vessel.kind === 'on_cake' && (
        <div className="flex flex-wrap items-end gap-3">
          <Select
            label="On"
            value={vessel.on ?? 'masked'}
            onChange={(on) => set({ vessel: { ...vessel, on } })}
            options={[
              ['masked', 'a masked cake'],
              ['sponge', 'bare sponge'],
              ['mousse', 'a mousse'],
            ]}
          />
          <NumberField
            label="of"
            unit="°C"
            value={vessel.on_c ?? 5}
            min={-30}
            max={45}
            step={1}
            fault={fault('vessel.on_c')}
            onCommit={(on_c) => set({ vessel: { ...vessel, on_c } })}
          />
        </div>
      )}
      {covered !== undefined && (
        <Tick
          checked={vessel.covered ?? covered}
          onChange={(next) => set({ vessel: { ...vessel, covered: next } })}
        >
          Covered
        </Tick>
      )}
      <fieldset className="flex flex-col gap-2 border-t border-line pt-2">
        <legend className="sr-only">Where it stands</legend>
        {places.map((own, at) => (
          <div key={at} className="flex flex-wrap items-end gap-2">
            <Select
              label={at === 0 ? 'Where' : 'Then'}
              value={own.place}
              className="w-[220px]"
              onChange={(next) => place(at, { place: next })}
              options={PLACES}
            />
            {places.length > 1 && (
              <Button
                look="quiet"
                className="px-2"
                aria-label={`Leave out ${word(own.place)}`}
                onClick={() => set({ places: ended(places.filter((_, k) => k !== at)) })}
              >
                Leave out
              </Button>
            )}
            {at < places.length - 1 && (
              <NumberField
                label="for"
                unit="min"
                value={own.min ?? FIRST_STAY_MIN}
                min={0.5}
                max={20160}
                step={5}
                fault={fault(`places.${at}.min`)}
                onCommit={(min) => place(at, { min })}
              />
            )}
            {STIRS.has(vessel.kind) && (
              <Select
                inline
                label={`Stirring ${word(own.place)}`}
                value={own.stir_min == null ? '' : String(own.stir_min)}
                onChange={(every) => place(at, { stir_min: every === '' ? null : Number(every) })}
                options={
                  own.stir_min == null || STIR.some(([key]) => key === String(own.stir_min))
                    ? STIR
                    : [...STIR, [String(own.stir_min), `stirred every ${own.stir_min} min`]]
                }
              />
            )}
            {fault(`places.${at}.place`) && (
              <span role="alert" className="text-small text-hot">
                {fault(`places.${at}.place`)}
              </span>
            )}
          </div>
        ))}
        {places.length < 6 && (
          <Button
            look="quiet"
            className="self-start px-2"
            onClick={() =>
              set({
                places: [
                  ...places.map((own) => ({ ...own, min: own.min ?? FIRST_STAY_MIN })),
                  { place: 'fridge' as const },
                ],
              })
            }
          >
            Then somewhere else
          </Button>
        )}
      </fieldset>
      <Drag
        size={{ field: 'height_mm', word: 'Room', range: [10, 40], usual: 21 }}
        unit="°C"
        step={0.5}
        value={room}
        onChange={(roomC) => set({ roomC })}
      />
      <div className="flex flex-wrap items-end gap-3">
        <NumberField
          label="Starts at"
          unit="°C"
          value={choice.startC ?? Math.round(10 * (told?.start.c ?? 20)) / 10}
          min={-40}
          max={125}
          step={1}
          fault={fault('start_c')}
          onCommit={(startC) => set({ startC })}
        />
        <TextField label="From" className="w-24" value={choice.at} onChange={(at) => set({ at })} />
      </div>
      <Probe choice={choice} told={told} fault={fault('probe.c') ?? fault('probe.min')} onChoice={onChoice} />
      {choice.startC !== null && (
        <Button look="quiet" className="self-start px-2" onClick={() => set({ startC: null })}>
          As its school leaves it
        </Button>
      )}
      {told?.safe && (
        <Select<Rule>
          label="Cooling limits of"
          value={choice.rule}
          onChange={(rule) => set({ rule })}
          options={RULES}
        />
      )}
    </div>
  )
}

interface ProbeProps {
  choice: ClockChoice
  told: ClockAnswer | undefined
  fault: string | undefined
  onChoice: (choice: ClockChoice) => void
}

/** What a probe in the middle read tells of the place; the kitchen keeps it. */
function Probe({ choice, told, fault, onChoice }: ProbeProps) {
  const kitchen = useKitchen().data
  const save = useSaveKitchen()
  const place = choice.places[0]
  if (!place || choice.places.length > 1 || !OF_AIR.has(place.place)) return null
  const kept = kitchen?.places?.find((own) => own.place === place.place)
  const others = (kitchen?.places ?? []).filter((own) => own.place !== place.place)
  const { probe } = choice
  const found = told?.probe
  if (!probe) {
    return (
      <div className="flex flex-col items-start gap-1 border-t border-line pt-2">
        {kept && (
          <p className="text-ink2">
            Counted as a probe read it {word(place.place)}: {kept.h} W/(m² K).
          </p>
        )}
        <span className="flex flex-wrap gap-2">
          <Button
            look="quiet"
            className="px-2"
            onClick={() =>
              onChoice({ ...choice, startC: choice.startC ?? told?.start.c ?? 20, probe: { min: 30, c: 20 } })
            }
          >
            A probe was read
          </Button>
          {kept && kitchen && (
            <Button look="quiet" className="px-2" onClick={() => save.mutate({ ...kitchen, places: others })}>
              Forget it
            </Button>
          )}
        </span>
      </div>
    )
  }
  return (
    <fieldset className="flex flex-col gap-2 border-t border-line pt-2">
      <legend className="sr-only">A probe in the middle</legend>
      <div className="flex flex-wrap items-end gap-3">
        <NumberField
          label="In the middle it read"
          unit="°C"
          value={probe.c}
          min={-40}
          max={125}
          step={0.5}
          fault={fault}
          onCommit={(c) => onChoice({ ...choice, probe: { ...probe, c } })}
        />
        <NumberField
          label="after"
          unit="min"
          value={probe.min}
          min={1}
          max={2880}
          step={5}
          onCommit={(min) => onChoice({ ...choice, probe: { ...probe, min } })}
        />
      </div>
      {found && <p>{found.sentence}.</p>}
      {save.isError && (
        <p role="alert" className="text-hot">
          Not kept: {save.error.message}
        </p>
      )}
      <span className="flex flex-wrap gap-2">
        {found && kitchen && (
          <Button
            disabled={save.isPending}
            onClick={() =>
              save.mutate(
                { ...kitchen, places: [...others, { place: place.place, h: found.h }] },
                { onSuccess: () => onChoice({ ...choice, probe: null }) },
              )
            }
          >
            Keep it for this kitchen
          </Button>
        )}
        <Button look="quiet" className="px-2" onClick={() => onChoice({ ...choice, probe: null })}>
          No reading
        </Button>
      </span>
    </fieldset>
  )
}

/** The last place has no end of its own. */
function ended(places: StandDocument[]): StandDocument[] {
  return places.map((own, at) => (at === places.length - 1 ? { ...own, min: null } : own))
}

function word(place: StandDocument['place']): string {
  return PLACES.find(([key]) => key === place)?.[1] ?? place
}

/** What is counted where nobody said a size: a bowl hangs on what goes in. */
function shown(size: Size, told: ClockAnswer | undefined): number {
  const across = /(\d+(?:\.\d+)?) cm wide/.exec(told?.vessel.words ?? '')?.[1]
  const tray = /(\d+(?:\.\d+)?) × (\d+(?:\.\d+)?) cm/.exec(told?.vessel.words ?? '')
  if (size.field === 'diameter_mm' && across) return 10 * Number(across)
  if (tray && size.field === 'width_mm') return 10 * Number(tray[1])
  if (tray && size.field === 'length_mm') return 10 * Number(tray[2])
  return size.usual
}

interface DragProps {
  size: Size
  value: number
  unit?: string
  step?: number
  fault?: string | undefined
  onChange: (value: number) => void
}

/** A size to drag, and to write. */
function Drag({ size, value, unit = 'mm', step, fault, onChange }: DragProps) {
  const [low, high] = size.range
  const by = step ?? (high <= 20 ? 0.5 : 5)
  return (
    <div className="flex items-center gap-3">
      <NumberField
        label={size.word}
        unit={unit}
        value={Math.round(10 * value) / 10}
        min={low}
        max={high}
        step={by}
        fault={fault}
        onCommit={onChange}
      />
      <Slider.Root
        className="relative mt-5 flex h-9 min-w-0 flex-1 touch-none items-center select-none pointer-coarse:h-11"
        min={low}
        max={high}
        step={by}
        value={[Math.min(high, Math.max(low, value))]}
        onValueChange={([next]) => next !== undefined && onChange(next)}
      >
        <Slider.Track className="relative h-1.5 flex-1 rounded bg-line">
          <Slider.Range className="absolute h-full rounded bg-rim" />
        </Slider.Track>
        <Slider.Thumb
          aria-label={`${size.word}, ${unit}`}
          className="block h-6 w-3.5 cursor-grab rounded-[5px] border-2 border-rim bg-enamel outline-none focus-visible:ring-3 focus-visible:ring-rim focus-visible:ring-offset-2 focus-visible:ring-offset-enamel"
        />
      </Slider.Root>
    </div>
  )
}
