import type { BatchEvent, NewBatchEvent } from '../../api/client'
import { newId } from '../../desk/tabs'

/**
 * What happened on this device and is not in the kitchen's file yet. Each event stands under a key of its own, so that two
 * tabs never write over each other; sent twice it is there once.
 */
export interface OnDevice {
  event: NewBatchEvent
  /** Its turn among those of this device. */
  turn: number
  /** Why the kitchen did not take it; none while nobody asked. */
  refused?: string
}

const KEPT = 'bright-spoon.event.'
/** What this browser does not keep: it holds as long as the page stands. */
const held = new Map<string, string>()

function names(batch: string): string[] {
  const own = `${KEPT}${batch}.`
  const all = [...held.keys()]
  try {
    for (let at = 0; at < localStorage.length; at++) {
      const name = localStorage.key(at)
      if (name !== null) all.push(name)
    }
  } catch {
    // A forbidden store holds nothing.
  }
  return all.filter((name) => name.startsWith(own))
}

function read(name: string): OnDevice | null {
  try {
    const text = held.get(name) ?? localStorage.getItem(name)
    return text === null ? null : (JSON.parse(text) as OnDevice)
  } catch {
    return null
  }
}

function write(name: string, own: OnDevice) {
  const text = JSON.stringify(own)
  try {
    localStorage.setItem(name, text)
    held.delete(name)
  } catch {
    held.set(name, text)
  }
}

/** What is on this device of a batch, in the order in which it happened. */
export function onDevice(batch: string): OnDevice[] {
  const all = names(batch).map(read)
  return all.filter((own) => own !== null).sort((a, b) => a.turn - b.turn)
}

/** Puts down what happened, before anything is sent. */
export function putDown(batch: string, event: BatchEvent): NewBatchEvent {
  const own: NewBatchEvent = { id: newId(), at: new Date().toISOString(), event }
  const last = onDevice(batch).at(-1)?.turn ?? 0
  write(`${KEPT}${batch}.${own.id}`, { event: own, turn: Math.max(last + 1, Date.now()) })
  return own
}

/** They are in the kitchen's file, or the cook let go of them. */
export function letGo(batch: string, ids: readonly string[]) {
  for (const id of ids) {
    const name = `${KEPT}${batch}.${id}`
    held.delete(name)
    try {
      localStorage.removeItem(name)
    } catch {
      // As above.
    }
  }
}

/** The kitchen did not take one, and said why. */
export function noteRefused(batch: string, id: string, refused: string) {
  const name = `${KEPT}${batch}.${id}`
  const own = read(name)
  if (own) write(name, { ...own, refused })
}
