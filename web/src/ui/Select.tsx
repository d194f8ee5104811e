import type { ReactNode } from 'react'
import { FIELD, LABEL, ROOMY, TIGHT } from './fieldLook'

export type Option<T extends string> = readonly [value: T, words: ReactNode]

interface SelectProps<T extends string> {
  label: string
  value: T
  onChange: (value: T) => void
  options?: readonly Option<T>[]
  /** Options in groups, after those of `options`; their values are taken as they are. */
  children?: ReactNode
  /** The label is read out and not shown: it stands in a sentence, or beside what says the same. */
  inline?: boolean
  /** Where there is little room. */
  tight?: boolean
  /** Its width and what else is its own. */
  className?: string
}

/** One of several. */
export function Select<T extends string>(props: SelectProps<T>) {
  const { label, value, onChange, inline = false, tight = false, className = '' } = props
  const { options = [], children } = props
  const select = (
    <select
      aria-label={inline ? label : undefined}
      className={`${FIELD} ${tight ? TIGHT : ROOMY} border-line2 ${className}`}
      value={value}
      onChange={(event) => {
        const chosen = options.find(([key]) => key === event.target.value)
        if (chosen) onChange(chosen[0])
        else if (children) onChange(event.target.value as T)
      }}
    >
      {options.map(([key, words]) => (
        <option key={key} value={key}>
          {words}
        </option>
      ))}
      {children}
    </select>
  )
  if (inline) return select
  return (
    <label className={LABEL}>
      {label}
      {select}
    </label>
  )
}
