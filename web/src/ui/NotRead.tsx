import type { ReactNode } from 'react'
import { Button } from './Button'

interface NotReadProps {
  /** "The plan cannot be read". */
  title: string
  error: Error | null
  onAgain: () => unknown
  /** Another way on, beside trying again. */
  children?: ReactNode
}

/** A view whose data could not be had: what, why, and trying again. */
export function NotRead({ title, error, onAgain, children }: NotReadProps) {
  return (
    <div className="tray flex-1 p-8">
      <h1 className="text-display text-hot">{title}</h1>
      <p className="mt-2">{error?.message}</p>
      <div className="mt-4 flex flex-wrap gap-3">
        <Button look="primary" onClick={() => void onAgain()}>
          Try again
        </Button>
        {children}
      </div>
    </div>
  )
}
