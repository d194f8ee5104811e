import { useState } from 'react'
import type { PointerEvent, RefObject } from 'react'

/** Lifts a row by its grip, with mouse, pen or finger, and sets it down where the pointer is. */
export function useReorder(
  body: RefObject<HTMLElement | null>,
  onMove: (key: string, to: number) => void,
  onDone: () => void,
) {
  const [lifted, setLifted] = useState<string | null>(null)
  const grip = (event: PointerEvent, key: string) => {
    if (event.button !== 0) return
    event.preventDefault()
    setLifted(key)
    const place = (y: number) => {
      const rows = [...(body.current?.querySelectorAll<HTMLElement>('[data-line]') ?? [])]
      const others = rows.filter((row) => row.dataset.line !== key)
      return others.filter((row) => {
        const box = row.getBoundingClientRect()
        return box.top + box.height / 2 < y
      }).length
    }
    const move = (moved: globalThis.PointerEvent) => onMove(key, place(moved.clientY))
    const done = () => {
      setLifted(null)
      onDone()
      window.removeEventListener('pointermove', move)
      window.removeEventListener('pointerup', done)
      window.removeEventListener('pointercancel', done)
    }
    window.addEventListener('pointermove', move)
    window.addEventListener('pointerup', done)
    window.addEventListener('pointercancel', done)
  }
  return { lifted, grip }
}
