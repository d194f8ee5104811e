import { useState } from 'react'
import { asking, useQuestion } from '../../api/ask'
import type { Shares } from '../../api/client'
import { numberOrNull, numberWords } from '../../lib/number'
import { TextNumber } from '../../ui/TextNumber'
import { TextField } from '../../ui/TextField'

/** Equal shares of what is really in the bowl, by weight, with rounding that adds up. */
export function SharesPane({ batch }: { batch: number | null }) {
  const [bowl, setBowl] = useState(batch === null ? '' : String(Math.round(batch)))
  const [empty, setEmpty] = useState('')
  const [vessels, setVessels] = useState('')
  const [sizes, setSizes] = useState('')
  const [loss, setLoss] = useState('')
  const [step, setStep] = useState('1')
  const many = numberOrNull(vessels)
  const own = sizes
    .split(/[\s;]+/)
    .filter(Boolean)
    .map((text) => numberOrNull(text) ?? NaN)
  const uneven = sizes.trim() !== ''
  const count = typeof many === 'number' && Number.isInteger(many) && many >= 1 && many <= 2000 ? many : 0
  const parts = uneven ? own : Array.from({ length: count }, () => 1)
  const ready = typeof numberOrNull(bowl) === 'number' && parts.length > 0 && parts.every(Number.isFinite)
  const body = {
    in_the_bowl_g: numberOrNull(bowl) ?? 0,
    bowl_g: numberOrNull(empty) ?? 0,
    loss_percent: numberOrNull(loss) ?? 0,
    step_g: numberOrNull(step) ?? 1,
    sizes: parts,
  }
  const { found, wrong, current } = useQuestion(asking('post', '/api/shares', { body }), ready)
  const notNumber = numberWords
  return (
    <div className="grid min-h-0 grid-cols-[320px_minmax(0,1fr)] gap-x-8 gap-y-4 overflow-y-auto px-1 pb-2 max-tablet:grid-cols-1">
      <div className="flex flex-col gap-3">
        <TextNumber
          label="The scale shows"
          unit="g"
          value={bowl}
          onChange={setBowl}
          fault={notNumber(bowl)}
          hint="what is really there, not what was planned"
        />
        <TextNumber
          label="Of that, the empty bowl"
          unit="g"
          placeholder="0"
          value={empty}
          onChange={setEmpty}
          fault={notNumber(empty)}
        />
        <TextNumber
          label="Into how many"
          value={uneven ? String(own.length) : vessels}
          onChange={setVessels}
          fault={
            !uneven && vessels.trim() !== '' && count === 0 ? 'a whole number from 1 to 2000' : undefined
          }
        />
        <TextField
          label="Unequal ones: their sizes, one after another"
          placeholder="20 16 12"
          className="w-56"
          value={sizes}
          onChange={setSizes}
          fault={uneven && !own.every(Number.isFinite) ? 'numbers with a space between' : null}
        />
        <TextNumber
          label="Stays in bowl and bag"
          unit="%"
          placeholder="0"
          value={loss}
          onChange={setLoss}
          fault={notNumber(loss)}
        />
        <TextNumber
          label="The scale steps in"
          unit="g"
          value={step}
          onChange={setStep}
          fault={notNumber(step)}
        />
      </div>
      <div aria-live="polite" className={`min-w-0 ${current || !ready ? '' : 'opacity-60'}`}>
        {!ready && <p className="text-ink2">Say into how many, and the weights stand here.</p>}
        {wrong && (
          <p role="alert" className="text-lead text-hot">
            {wrong}
          </p>
        )}
        {ready && found && !wrong && <Weights shares={found} />}
      </div>
    </div>
  )
}

function Weights({ shares }: { shares: Shares }) {
  return (
    <div className="flex flex-col gap-3">
      <p className="font-head text-title leading-tight font-[640]">{shares.sentence}</p>
      <p className="text-ink2">
        Pour from the bowl on the scale: after each one it should show the last column.
      </p>
      <div className="max-h-[46vh] overflow-y-auto">
        <table className="text-left">
          <thead className="text-small text-ink2">
            <tr>
              <th className="pr-8 font-[450]">Vessel</th>
              <th className="pr-8 text-right font-[450]">In it, g</th>
              <th className="text-right font-[450]">The scale then shows, g</th>
            </tr>
          </thead>
          <tbody>
            {shares.shares.map((share, at) => (
              <tr key={at} className="border-t border-line">
                <th scope="row" className="py-0.5 font-[450]">
                  {at + 1}
                </th>
                <td className="pr-8 text-right text-lead font-[640]">{weight(share.grams)}</td>
                <td className="text-right">{weight(share.bowl_then_g)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  )
}

function weight(grams: number): string {
  return grams.toLocaleString('en', { maximumFractionDigits: 2 })
}
