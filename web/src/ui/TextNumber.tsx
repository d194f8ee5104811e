import { useId } from 'react'
import { FIELD, LABEL, ROOMY } from './fieldLook'
import { numberWords } from '../lib/number'

interface TextNumberProps {
  label: string
  /** As typed: the form reads it when it is used. */
  value: string
  onChange: (text: string) => void
  placeholder?: string | undefined
  /** What is wrong with it; none when nothing is. */
  fault?: string | undefined
  hint?: string | undefined
  unit?: string | undefined
  /** Whether one number is expected; a list of them, or a temperature, is read by its form. */
  numeric?: boolean
}

/** A number typed into a form that is used as a whole. */
export function TextNumber({
  label,
  value,
  onChange,
  placeholder,
  fault,
  hint,
  unit,
  numeric = true,
}: TextNumberProps) {
  const id = useId()
  const wrong = fault ?? (numeric ? numberWords(value) : undefined)
  const under = wrong ?? hint
  return (
    <span className={LABEL}>
      <label htmlFor={id}>{label}</label>
      <span className="flex min-w-0 items-center gap-2">
        <input
          id={id}
          inputMode="decimal"
          autoComplete="off"
          className={`${FIELD} ${ROOMY} w-40 ${wrong ? 'border-hot' : 'border-line2'}`}
          aria-invalid={wrong ? true : undefined}
          aria-describedby={under ? `${id}-under` : undefined}
          placeholder={placeholder}
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
        {unit && <span className="text-body text-ink2">{unit}</span>}
      </span>
      {under && (
        <span id={`${id}-under`} className={`text-small ${wrong ? 'text-hot' : 'text-ink2'}`}>
          {under}
        </span>
      )}
    </span>
  )
}
