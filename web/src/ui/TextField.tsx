import { useId } from 'react'
import type { InputHTMLAttributes } from 'react'
import { FIELD, LABEL, ROOMY } from './fieldLook'

type Own = 'value' | 'onChange' | 'className' | 'aria-label'

interface TextFieldProps extends Omit<InputHTMLAttributes<HTMLInputElement>, Own> {
  label: string
  value: string
  onChange: (text: string) => void
  /** The label is read out and not shown. */
  inline?: boolean
  /** What is wrong with it; none when nothing is. */
  fault?: string | null | undefined
  className?: string
}

/** A line of text, a date, something sought. */
export function TextField(props: TextFieldProps) {
  const { label, value, onChange, inline = false, fault, className = '', ...rest } = props
  const id = useId()
  const input = (
    <input
      autoComplete="off"
      {...rest}
      aria-label={inline ? label : undefined}
      className={`${FIELD} ${ROOMY} ${fault ? 'border-hot' : 'border-line2'} ${className}`}
      aria-invalid={fault ? true : undefined}
      aria-describedby={fault ? id : undefined}
      value={value}
      onChange={(event) => onChange(event.target.value)}
    />
  )
  return (
    <span className={inline && !fault ? 'contents' : LABEL}>
      {inline ? (
        input
      ) : (
        <label className="flex flex-col gap-1">
          {label}
          {input}
        </label>
      )}
      {fault && (
        <span id={id} role="alert" className="text-small text-hot">
          {fault}
        </span>
      )}
    </span>
  )
}

interface TextAreaProps {
  label: string
  value: string
  onChange: (text: string) => void
  maxLength: number
}

/** Several lines of text. */
export function TextArea({ label, value, onChange, maxLength }: TextAreaProps) {
  return (
    <label className={LABEL}>
      {label}
      <textarea
        className="min-h-16 rounded-lg border border-line2 bg-enamel p-2 text-body text-ink"
        maxLength={maxLength}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  )
}
