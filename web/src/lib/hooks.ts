import { useEffect, useState, useSyncExternalStore } from 'react'
import type { RefObject } from 'react'

/** The value as it was when it last rested for `ms`. */
export function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value)
  useEffect(() => {
    const timer = window.setTimeout(() => setSettled(value), ms)
    return () => window.clearTimeout(timer)
  }, [value, ms])
  // What rests no time is there at once, not a drawing of the page later.
  return ms === 0 ? value : settled
}

/** The title of the window while a view is shown: what it is of, then the product. */
export function useTitle(words: string) {
  useEffect(() => {
    window.document.title = `${words} – Bright Spoon`
  }, [words])
}

/** Width and height of an element in CSS pixels, kept up to date. */
export function useSize(ref: RefObject<Element | null>): { width: number; height: number } {
  const [size, setSize] = useState({ width: 0, height: 0 })
  useEffect(() => {
    const element = ref.current
    if (!element) return
    const observer = new ResizeObserver((entries) => {
      const box = entries[0]?.contentRect
      if (box) setSize({ width: box.width, height: box.height })
    })
    observer.observe(element)
    return () => observer.disconnect()
  }, [ref])
  return size
}

/** Whether a media query holds. */
export function useMedia(query: string): boolean {
  return useSyncExternalStore(
    (changed) => {
      const list = window.matchMedia(query)
      list.addEventListener('change', changed)
      return () => list.removeEventListener('change', changed)
    },
    () => window.matchMedia(query).matches,
  )
}

/** Things that take letters and arrows for themselves: a drop-down jumps to the option that begins with one. */
const TAKES_KEYS =
  'input, textarea, select, [contenteditable], [role="combobox"], [role="textbox"], [role="spinbutton"]'

/** Keys that a list of options takes for itself; a list that stands open in a page, as the places of a cake, not. */
const FLOATING = '[role="dialog"], [role="menu"], [data-radix-popper-content-wrapper]'

/** True while the keys belong to a field, a drop-down or a list of options. */
export function isTyping(target: EventTarget | null): boolean {
  return target instanceof Element && target.closest(TAKES_KEYS) !== null
}

/** Whether a key pressed now belongs to the page: to no field, no sheet, no menu, and nobody took it. */
export function keysAreFree(event: KeyboardEvent): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return false
  return !isTyping(event.target) && window.document.querySelector(FLOATING) === null
}
