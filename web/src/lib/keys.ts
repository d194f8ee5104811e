import { useEffect, useRef, useSyncExternalStore } from 'react'
import { keysAreFree } from './hooks'

/** A key and what it does. */
export interface Key {
  /** As it is pressed: "w", "arrowleft", "f8", "mod+s", "mod+shift+z"; several that do the like. */
  key: string | readonly string[]
  /** What it does, for the list of keys. */
  words: string
  /** How several are written in the list: "A to E". */
  shown?: string
  run: (event: KeyboardEvent) => void
  /** Also out of a field and over a sheet. */
  always?: boolean
  /** Before anything in the page has it. */
  first?: boolean
  /** When it does anything; always when not said. */
  when?: (event: KeyboardEvent) => boolean
}

/** The keys of one part of the page, for the list. */
export interface KeyScope {
  scope: string
  keys: readonly Key[]
}

/** Everything that answers to keys now, the newest last. */
let layers: readonly { current: KeyScope }[] = []
const watchers = new Set<() => void>()

function changed(next: typeof layers) {
  layers = next
  for (const watcher of watchers) watcher()
}

/** How a key pressed is written. */
export function keyName(event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>) {
  const key = event.key.toLowerCase()
  const held = event.ctrlKey || event.metaKey
  return `${held ? 'mod+' : ''}${event.altKey ? 'alt+' : ''}${held && event.shiftKey ? 'shift+' : ''}${key}`
}

/** Whether a key is one letter, digit or sign, which a cook may have switched off. */
export const isLetter = (key: string) => key.length === 1

/** A key as the list writes it. */
export function keyWords({ key, shown }: Pick<Key, 'key' | 'shown'>): string {
  const names: Record<string, string> = { arrowleft: '←', arrowright: '→', mod: 'Ctrl', escape: 'Esc' }
  const one = (each: string) =>
    each
      .split('+')
      .map((part) => names[part] ?? part.charAt(0).toUpperCase() + part.slice(1))
      .join(' + ')
  return shown ?? (typeof key === 'string' ? one(key) : key.map(one).join(', '))
}

const LETTERS = 'bright-spoon.letters'
/** What holds while the device remembers nothing. */
let here: boolean | null = null

/** Whether single letters and digits are keys on this device. */
export function lettersAreKeys(): boolean {
  if (here !== null) return here
  try {
    return localStorage.getItem(LETTERS) !== 'off'
  } catch {
    // A forbidden store remembers nothing.
    return true
  }
}

/** Switches single letters and digits on or off as keys, here and after a reload. */
export function setLettersAreKeys(on: boolean) {
  here = on
  try {
    localStorage.setItem(LETTERS, on ? 'on' : 'off')
  } catch {
    // It holds as long as the page stands.
  }
  showLetters()
  changed([...layers])
}

/** The caps on buttons show what does something. */
export function showLetters() {
  document.documentElement.dataset.letters = lettersAreKeys() ? 'on' : 'off'
}

function press(event: KeyboardEvent, first: boolean) {
  // A browser that fills a field in sends key events without a key.
  if (typeof event.key !== 'string') return
  const name = keyName(event)
  if (isLetter(name) && !lettersAreKeys()) return
  for (const layer of [...layers].reverse()) {
    for (const key of layer.current.keys) {
      if ((key.first ?? false) !== first) continue
      if (key.key !== name && !(Array.isArray(key.key) && key.key.includes(name))) continue
      if (!key.always && !keysAreFree(event)) continue
      if (key.when && !key.when(event)) continue
      event.preventDefault()
      if (first) event.stopPropagation()
      key.run(event)
      return
    }
  }
}

/** The keys of a part of the page, while it is shown; those of a part put up later come first. */
export function useKeys(scope: string, keys: readonly Key[]) {
  const layer = useRef<KeyScope>({ scope, keys })
  useEffect(() => {
    layer.current = { scope, keys }
  })
  useEffect(() => {
    if (layers.length === 0) {
      window.addEventListener('keydown', onKey)
      window.addEventListener('keydown', onFirst, true)
    }
    changed([...layers, layer])
    return () => {
      changed(layers.filter((each) => each !== layer))
      if (layers.length > 0) return
      window.removeEventListener('keydown', onKey)
      window.removeEventListener('keydown', onFirst, true)
    }
  }, [])
}

const onKey = (event: KeyboardEvent) => press(event, false)
const onFirst = (event: KeyboardEvent) => press(event, true)

function watch(watcher: () => void) {
  watchers.add(watcher)
  return () => watchers.delete(watcher)
}

/** The keys that answer now, part by part, and whether single letters do. */
export function useKeyList(): { scopes: KeyScope[]; letters: boolean } {
  const now = useSyncExternalStore(watch, () => layers)
  const scopes: KeyScope[] = []
  for (const { scope, keys } of now.map((layer) => layer.current)) {
    const said = keys.filter((key) => key.words !== '')
    const known = scopes.find((each) => each.scope === scope)
    if (known) known.keys = [...known.keys, ...said]
    else if (said.length > 0) scopes.push({ scope, keys: said })
  }
  return { scopes, letters: lettersAreKeys() }
}
