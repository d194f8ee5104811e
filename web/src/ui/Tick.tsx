import type { ReactNode } from 'react'

interface TickProps {
  checked: boolean
  onChange: (checked: boolean) => void
  /** What is ticked, beside the box. */
  children?: ReactNode
  /** What is read out where nothing stands beside the box. */
  label?: string
  /** One of several of this name, instead of a tick of its own. */
  radio?: string
  className?: string
}

/** A box to tick, or one of several to choose, large enough for a thumb. */
export function Tick({ checked, onChange, children, label, radio, className = '' }: TickProps) {
  return (
    <label className={`flex min-h-9 items-center gap-2 pointer-coarse:min-h-11 ${className}`}>
      <input
        type={radio === undefined ? 'checkbox' : 'radio'}
        name={radio}
        aria-label={label}
        className="h-5 w-5 shrink-0 accent-rim"
        checked={checked}
        onChange={(event) => onChange(event.target.checked)}
      />
      {children}
    </label>
  )
}
