import { useId } from 'react'
import { numberOrNull } from '../../lib/number'

interface BigNumberProps {
  label: string
  unit: string
  value: string
  onChange: (text: string) => void
  step: number
  placeholder: string
  wrong: string | null
}

/** A number to be set with a wet finger. */
export function BigNumber({ label, unit, value, onChange, step, placeholder, wrong }: BigNumberProps) {
  const id = useId()
  const nudge = (by: number) => {
    const from = numberOrNull(value || placeholder) ?? NaN
    onChange(String(Math.round(((Number.isFinite(from) ? from : 20) + by) * 10) / 10))
  }
  const small =
    'min-h-14 w-14 shrink-0 rounded-xl border-2 border-rim text-display font-[640] text-rim hover:bg-rim-tint'
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-lead font-[640]">
        {label}, {unit}
      </label>
      <span className="flex items-center gap-2">
        <button type="button" className={small} aria-label={`${label}: less`} onClick={() => nudge(-step)}>
          −
        </button>
        <input
          id={id}
          inputMode="decimal"
          autoComplete="off"
          className={`min-h-14 w-full min-w-0 rounded-xl border-2 bg-enamel px-2 text-center text-head font-[720] placeholder:text-lead placeholder:font-[450] placeholder:text-ink3 ${wrong ? 'border-hot' : 'border-line2'}`}
          placeholder={placeholder}
          aria-invalid={wrong ? true : undefined}
          aria-describedby={wrong ? `${id}-wrong` : undefined}
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
        <button type="button" className={small} aria-label={`${label}: more`} onClick={() => nudge(step)}>
          +
        </button>
      </span>
      {wrong && (
        <span id={`${id}-wrong`} role="alert" className="text-lead text-hot">
          {wrong}
        </span>
      )}
    </div>
  )
}
