import { useRef } from 'react'
import type { ReactNode } from 'react'
import { Button } from './Button'

interface FilePickProps {
  /** What the file is, read out. */
  label: string
  /** Endings and types that are taken. */
  accept: string
  onPick: (file: File) => void
  children: ReactNode
}

/** A button that takes a file from the device. */
export function FilePick({ label, accept, onPick, children }: FilePickProps) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <Button onClick={() => input.current?.click()}>{children}</Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={label}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const picked = event.target.files?.[0]
          // The same file may be picked again.
          event.target.value = ''
          if (picked) onPick(picked)
        }}
      />
    </>
  )
}

/** Files that carry an order, a cake or a recipe. */
export const JSON_FILES = '.json,.jsonld,application/json,application/ld+json'
