import { useId, useState } from 'react'
import { celsius, readNumber, readTemperature } from '../lib/number'

interface NumberFieldProps {
  label: string
  unit: string
  value: number
  min: number
  max: number
  step: number
  onCommit: (value: number) => void
  /** Shown inside a sentence: no label above, the label is read out only. */
  inline?: boolean
  /** A fault the server named at this field. */
  fault?: string | undefined
  /** Past this it is asked whether it is meant: most often degrees Fahrenheit. */
  likely?: number | undefined
}

/** A number with its unit. What is typed and what is committed are two values; arrows step. */
export function NumberField(props: NumberFieldProps) {
  const { label, unit, value, min, max, step, onCommit, inline = false, fault, likely } = props
  const [typed, setTyped] = useState<string | null>(null)
  /** A number past what is likely, until it is said to be meant. */
  const [asking, setAsking] = useState<number | null>(null)
  const id = useId()
  const warmth = unit === '°C'
  const read = typed === null ? null : warmth ? readTemperature(typed) : readNumber(typed)
  const parsed = read === null ? value : read.kind === 'number' ? read.value : NaN
  const wrong = read !== null && !(parsed >= min && parsed <= max)
  const said = !wrong ? fault : read.kind === 'wrong' ? read.words : `from ${min} to ${max} ${unit}`
  const take = (next: number) => {
    setTyped(null)
    setAsking(null)
    if (next !== value) onCommit(next)
  }
  const commit = (next: number) => {
    // Written with its °F it is no question.
    const sure = read !== null && 'fahrenheit' in read
    if (likely !== undefined && next > likely && next !== value && !sure) setAsking(next)
    else take(next)
  }
  const nudge = (by: number) => {
    const from = Number.isFinite(parsed) ? parsed : value
    const next = Math.round((from + by) * 1000) / 1000
    commit(Math.min(max, Math.max(min, next)))
  }
  return (
    <span className={inline ? 'inline-flex flex-col align-baseline' : 'flex flex-col gap-1'}>
      <label htmlFor={id} className={inline ? 'sr-only' : 'text-small text-ink2'}>
        {label}
      </label>
      <span className="inline-flex items-baseline gap-1">
        <input
          id={id}
          inputMode="decimal"
          autoComplete="off"
          className={`w-[4.2em] rounded-md border bg-enamel px-1.5 py-0.5 text-right font-[640] pointer-coarse:min-h-11 ${
            said ? 'border-hot' : 'border-line2'
          }`}
          value={typed ?? String(value)}
          aria-invalid={said ? true : undefined}
          aria-describedby={said ? `${id}-fault` : undefined}
          onChange={(event) => setTyped(event.target.value)}
          onFocus={(event) => event.target.select()}
          onBlur={() => {
            if (!wrong) commit(parsed)
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && !wrong) commit(parsed)
            if (event.key === 'Escape') setTyped(null)
            if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
              event.preventDefault()
              nudge((event.key === 'ArrowUp' ? 1 : -1) * step * (event.shiftKey ? 10 : 1))
            }
          }}
        />
        <span className="text-ink2">{unit}</span>
      </span>
      {asking !== null && (
        <span
          role="alert"
          className="flex flex-wrap items-center gap-2 text-small whitespace-normal text-hot"
        >
          {asking} °C is hotter than it can get. {asking} °F would be {celsius(asking)} °C.
          <button type="button" className="font-[640] underline" onClick={() => take(celsius(asking))}>
            {celsius(asking)} °C
          </button>
          <button type="button" className="font-[640] underline" onClick={() => take(asking)}>
            {asking} °C is meant
          </button>
          <button
            type="button"
            className="font-[640] underline"
            onClick={() => {
              setTyped(null)
              setAsking(null)
            }}
          >
            As it was
          </button>
        </span>
      )}
      {said && (
        <span id={`${id}-fault`} role="alert" className="text-small text-hot">
          {said}
        </span>
      )}
    </span>
  )
}
