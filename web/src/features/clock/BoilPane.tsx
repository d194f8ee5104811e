import { useState } from 'react'
import { asking, useQuestion } from '../../api/ask'
import type { BoilAnswer, BoilDocument, FormulaDocument } from '../../api/client'
import { same } from '../../desk/same'
import { Button } from '../../ui/Button'
import { NumberField } from '../../ui/NumberField'
import { Select } from '../../ui/Select'
import { Spoken } from '../../ui/Spoken'
import { useKitchen } from '../kitchen/queries'
import { minutesWords } from './times'

type To = BoilDocument['boil']['to']
type Ring = NonNullable<BoilDocument['ring']>

const TO: readonly (readonly [To, string])[] = [
  ['temperature', 'a temperature'],
  ['brix', 'a strength'],
  ['share', 'a share of its weight'],
  ['weight', 'a weight'],
]
const RINGS: readonly (readonly [Ring, string])[] = [
  ['gas', 'gas'],
  ['electric', 'an electric plate'],
  ['induction', 'induction'],
]

/** How far, by what it is said in. */
const FIELDS: Record<To, { label: string; unit: string; min: number; max: number; step: number }> = {
  temperature: { label: 'As it is written for the sea', unit: '°C', min: 30, max: 180, step: 1 },
  brix: { label: 'Dissolved in its liquid', unit: '°Bx', min: 1, max: 99, step: 1 },
  share: { label: 'Of its weight is left', unit: '%', min: 5, max: 100, step: 5 },
  weight: { label: 'Left, without the pan', unit: 'g', min: 1, max: 1_000_000, step: 10 },
}

const USUAL: Record<To, number> = { temperature: 118, brix: 65, share: 50, weight: 500 }

function asTyped(boil: BoilDocument['boil']): Partial<Record<To, number>> {
  if (boil.to === 'temperature') return { temperature: boil.c }
  if (boil.to === 'brix') return { brix: boil.brix }
  if (boil.to === 'share') return { share: 100 * boil.of_weight }
  return { weight: boil.left_g }
}

interface BoilPaneProps {
  document: FormulaDocument
  /** Takes a formula back to where it came from; none where nothing is changed from here. */
  onUse: ((document: FormulaDocument) => void) | null
}

/** Over a ring: the weight at which to stop, how hot it is then, and how long that takes. */
export function BoilPane({ document, onUse }: BoilPaneProps) {
  const counted = document.process?.boiled
  const [to, setTo] = useState<To>(counted?.to ?? 'temperature')
  const [values, setValues] = useState<Record<To, number>>(() => ({
    ...USUAL,
    ...(counted && asTyped(counted)),
  }))
  const [ring, setRing] = useState<Ring>('electric')
  const [watts, setWatts] = useState(2000)
  const altitude_m = useKitchen().data?.altitude_m ?? 0
  const boil: BoilDocument['boil'] =
    to === 'temperature'
      ? { to, c: values.temperature }
      : to === 'brix'
        ? { to, brix: values.brix }
        : to === 'share'
          ? { to, of_weight: values.share / 100 }
          : { to, left_g: values.weight }
  const body: BoilDocument = { formula: document, boil, altitude_m, ring, watts }
  const { found, wrong } = useQuestion(asking('post', '/api/clock/boil', { body }))
  const set = (value: number) => setValues({ ...values, [to]: value })
  return (
    <div className="grid grid-cols-[300px_minmax(0,1fr)] gap-x-8 gap-y-4 px-1 pt-2 pb-1 max-tablet:grid-cols-1">
      <div className="flex flex-col gap-3">
        <Select label="Heated to" value={to} onChange={setTo} options={TO} />
        <NumberField key={to} {...FIELDS[to]} value={values[to]} onCommit={set} />
        <Select label="Over" value={ring} onChange={setRing} options={RINGS} />
        <NumberField
          label="The ring as it is set"
          unit="W"
          value={watts}
          min={100}
          max={30000}
          step={100}
          onCommit={setWatts}
        />
        <p className="text-note text-ink2">
          {altitude_m === 0 ? 'At the sea' : `${altitude_m} m above the sea`}: said with the room of the
          kitchen.
        </p>
      </div>
      <div className="flex min-w-0 flex-col gap-3">
        {wrong && (
          <p role="alert" className="text-title font-[640] text-hot">
            {wrong}
          </p>
        )}
        {found && !wrong && <Told told={found} />}
        {found && !wrong && onUse && found.gone_g > 0 && !same(counted, boil) && (
          <Button
            look="primary"
            className="self-start"
            onClick={() => onUse({ ...document, process: { ...document.process, boiled: boil } })}
          >
            Count with what is left
          </Button>
        )}
        {counted && onUse && (
          <p className="flex flex-wrap items-center gap-x-3 text-ink2">
            {same(counted, boil)
              ? 'The formula counts with what is left of this.'
              : 'The formula counts with another boil.'}
            <Button look="quiet" className="underline" onClick={() => onUse(notBoiled(document))}>
              Count with all that is weighed
            </Button>
          </p>
        )}
      </div>
    </div>
  )
}

function notBoiled(document: FormulaDocument): FormulaDocument {
  const { boiled: _boiled, ...process } = document.process ?? {}
  return { ...document, process }
}

function Told({ told }: { told: BoilAnswer }) {
  return (
    <>
      <Spoken>
        <h3 className="font-head text-head leading-tight text-balance">{told.sentence}</h3>
      </Spoken>
      <p className="text-ink2">
        It begins to boil at {told.boils_c} °C. {told.gone_g > 0 && `${told.gone_g} g of water go. `}
        Dissolved in its liquid: {told.brix[0]} °Bx before, {told.brix[1]} after.
      </p>
      {told.grains && <p>{told.grains}</p>}
      {told.egg && <p className="font-[640]">{told.egg}.</p>}
      <ul className="border-t border-line">
        {told.pans.map((pan) => (
          <li key={pan.words} className="border-b border-line py-2">
            In {pan.words}:{' '}
            {pan.min == null ? (
              <b className="text-hot">this ring will not boil it</b>
            ) : (
              <>
                <b className="text-lead">{minutesWords(pan.min)}</b>, anywhere from{' '}
                {minutesWords(pan.band_min?.[0] ?? pan.min)} to {minutesWords(pan.band_min?.[1] ?? pan.min)};
                hot after {minutesWords(pan.to_heat_min ?? 0)}
                {pan.loses_g != null && `; about ${pan.loses_g} g steam away: weigh it back`}
              </>
            )}
          </li>
        ))}
      </ul>
      {told.stages.length > 0 && (
        <table className="text-left">
          <caption className="sr-only">Stages of sugar</caption>
          <thead className="text-small text-ink2">
            <tr>
              <th className="pr-4 font-[450]">Stage</th>
              <th className="pr-4 font-[450]">At</th>
              <th className="pr-4 font-[450]">The scale shows</th>
              <th className="font-[450]">A drop in iced water</th>
            </tr>
          </thead>
          <tbody>
            {told.stages.map((stage) => (
              <tr key={stage.stage} className={stage.asked ? 'bg-rim-tint font-[640]' : ''}>
                <td className="py-0.5 pr-4">{stage.stage}</td>
                <td className="pr-4 whitespace-nowrap">
                  {stage.temperature_c[0]} to {stage.temperature_c[1]} °C
                </td>
                <td className="pr-4 whitespace-nowrap">
                  {stage.scale_g[1]} to {stage.scale_g[0]} g
                </td>
                <td>{stage.sign}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {told.cautions.map((caution) => (
        <p key={caution.words}>
          <b className="text-hot">Mind:</b> {caution.words}
        </p>
      ))}
    </>
  )
}
