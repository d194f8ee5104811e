import { useEffect, useRef } from 'react'
import { keysAreFree } from '../lib/hooks'

/** What the keys of a document in hand do. */
export interface DeskKeys {
  save: () => void
  undo: () => void
  redo: () => void
  /** Every other key, when it belongs to nothing else. */
  other?: (key: string, event: KeyboardEvent, act: (run: () => void) => void) => void
}

/** Saving, undo and redo by key, also out of a field; the rest only where no field, list or sheet has the keys. */
export function useDeskKeys(keys: DeskKeys) {
  const latest = useRef(keys)
  useEffect(() => {
    latest.current = keys
  })
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { save, undo, redo, other } = latest.current
      const held = event.ctrlKey || event.metaKey
      const key = event.key.toLowerCase()
      const act = (run: () => void) => {
        event.preventDefault()
        run()
      }
      if (held && key === 's') return act(save)
      if (held && key === 'z') return act(event.shiftKey ? redo : undo)
      if (held && key === 'y') return act(redo)
      if (!keysAreFree(event)) return
      if (key === 's') return act(save)
      other?.(key, event, act)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}
