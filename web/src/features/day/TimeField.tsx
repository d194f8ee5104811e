import { useState } from 'react'
import { TextField } from '../../ui/TextField'
import { readTime } from './time'

interface TimeFieldProps {
  label: string
  /** "06:40:00". */
  value: string
  onChange: (value: string) => void
}

/** A time of day on the clock of 24 hours, typed as one likes: 6, 6:40, 0640. */
export function TimeField({ label, value, onChange }: TimeFieldProps) {
  const [typed, setTyped] = useState<string | null>(null)
  const read = typed === null ? null : readTime(typed)
  const commit = () => {
    if (read && `${read}:00` !== value) onChange(`${read}:00`)
    if (read) setTyped(null)
  }
  return (
    <TextField
      label={label}
      inputMode="numeric"
      className="w-20"
      value={typed ?? value.slice(0, 5)}
      fault={typed !== null && read === null ? 'write 0:00 to 23:59' : null}
      onChange={setTyped}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') commit()
      }}
    />
  )
}
