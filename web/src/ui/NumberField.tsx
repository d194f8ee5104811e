import { useId, useState } from 'react'

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
}

/** A number with its unit. What is typed and what is committed are two values; arrows step. */
export function NumberField(props: NumberFieldProps) {
  const { label, unit, value, min, max, step, onCommit, inline = false, fault } = props
  const [typed, setTyped] = useState<string | null>(null)
  const id = useId()
  const parsed = typed === null ? value : Number(typed.replace(',', '.'))
  const wrong = typed !== null && (typed.trim() === '' || !(parsed >= min && parsed <= max))
  const said = wrong ? `from ${min} to ${max} ${unit}` : fault
  const commit = (next: number) => {
    setTyped(null)
    if (next !== value) onCommit(next)
  }
  const nudge = (by: number) => {
    const from = Number.isFinite(parsed) ? parsed : value
    const next = Math.round((from + by) * 1000) / 1000
    commit(Math.min(max, Math.max(min, next)))
  }
  return (
    <span className={inline ? 'inline-flex flex-col align-baseline' : 'flex flex-col gap-1'}>
      <label htmlFor={id} className={inline ? 'sr-only' : 'text-[13px] text-ink2'}>
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
      {said && (
        <span id={`${id}-fault`} role="alert" className="text-[13px] text-hot">
          {said}
        </span>
      )}
    </span>
  )
}
