import { openDB } from 'idb'
import type { DBSchema, IDBPDatabase } from 'idb'
import { newId, TAB_ID, tellDrafts } from './tabs'

/**
 * Work that was not saved yet, kept on this device: one draft per document and tab, one per new start. A draft goes
 * only by a save of that very draft or a plain yes. What cannot be kept on the device is held by the page as long as
 * it stands, and said to be so.
 */

export type Noun = 'formula' | 'order' | 'ingredient' | 'room' | 'plan'

export interface Draft {
  id: string
  noun: Noun
  /** Key of what it changes; none for something new. */
  thing: string | null
  /** The tab that wrote it last. */
  tab: string
  /** Revision it started from; 0 for something new. */
  basedOn: number
  name: string
  at: string
  document: unknown
}

interface Kept extends DBSchema {
  drafts: { key: string; value: Draft }
}

const STORE = 'drafts'
/** Where drafts were kept before they had a store of their own. */
const OLD = 'bright-spoon.draft.'
/** Where the last letters go when the page is left before the device took them: that store answers at once. */
const LEAVING = 'bright-spoon.leaving.'
/** What stands there for a draft that is to go. */
const GONE = '"gone"'

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}

function isText(value: unknown): value is string {
  return typeof value === 'string'
}

/** What a document of each noun must have at the least to be put in hand without breaking the page. */
const FITS: Record<Noun, (document: Record<string, unknown>) => boolean> = {
  formula: (own) =>
    own.format === 'bright-spoon/formula' &&
    own.version === 1 &&
    isText(own.family) &&
    Array.isArray(own.lines) &&
    own.lines.every((line) => isObject(line) && isText(line.ingredient) && isText(line.amount)) &&
    isObject(own.work) &&
    isObject(own.work.job) &&
    typeof own.work.temperature_c === 'number',
  order: (own) =>
    own.format === 'bright-spoon/order' &&
    own.version === 1 &&
    Array.isArray(own.cakes) &&
    own.cakes.every((cake) => isObject(cake) && isObject(cake.stack) && Array.isArray(cake.stack.tiers)),
  room: (own) =>
    own.format === 'bright-spoon/kitchen' &&
    own.version === 1 &&
    Array.isArray(own.hours) &&
    Array.isArray(own.cooks) &&
    isObject(own.equipment) &&
    isObject(own.equipment.fridge) &&
    isObject(own.equipment.freezer),
  // A plan is made by the server and used or not: none is typed.
  plan: () => false,
  ingredient: (own) =>
    isText(own.name) && isObject(own.parts) && Array.isArray(own.allergens) && Array.isArray(own.origins),
}

/** Checked when read: the store is open to other programs and to older versions of this one. */
function isDraft(value: unknown): value is Draft {
  if (!isObject(value) || !isText(value.id) || !isText(value.tab) || !isText(value.at)) return false
  if (!isText(value.name) || typeof value.basedOn !== 'number') return false
  if (value.thing !== null && !isText(value.thing)) return false
  const fits = FITS[value.noun as Noun] as ((document: Record<string, unknown>) => boolean) | undefined
  return fits !== undefined && isObject(value.document) && fits(value.document)
}

/** Drafts the device did not take; the page holds them. */
const held = new Map<string, Draft>()
/** Drafts on their way to the device, as they are to be kept. */
const underway = new Map<string, Draft>()
/** Drafts that are to go, which the device did not confirm yet. */
const gone = new Set<string>()
const ears = new Set<() => void>()
/** How often anything changed: what a component looks at to know that it must look again. */
let changes = 0

function changed() {
  changes += 1
  for (const hear of ears) hear()
}

export function onDrafts(hear: () => void): () => void {
  ears.add(hear)
  return () => void ears.delete(hear)
}

export function draftChanges(): number {
  return changes
}

/** Whether some work is only in this page: the device refused it. */
export function somethingHeld(): boolean {
  return held.size > 0
}

function warn(event: BeforeUnloadEvent) {
  event.preventDefault()
}

/** The browser asks before the page is left only while something is not kept. */
function guardTheDoor() {
  window.removeEventListener('beforeunload', warn)
  if (held.size > 0 || underway.size > 0) window.addEventListener('beforeunload', warn)
}

window.addEventListener('pagehide', () => {
  try {
    for (const draft of underway.values()) localStorage.setItem(LEAVING + draft.id, JSON.stringify(draft))
    for (const id of gone) localStorage.setItem(LEAVING + id, GONE)
  } catch {
    // The browser asked before the page was left.
  }
})

/** What was on its way when a page was left is kept now. */
async function bringLeft(db: IDBPDatabase<Kept>) {
  let keys: string[]
  try {
    keys = Object.keys(localStorage).filter((key) => key.startsWith(LEAVING))
  } catch {
    return
  }
  for (const key of keys) {
    try {
      const left = localStorage.getItem(key) ?? 'null'
      const draft = JSON.parse(left) as unknown
      if (left === GONE) {
        await db.delete(STORE, key.slice(LEAVING.length))
      } else if (isDraft(draft)) {
        const there = await db.get(STORE, draft.id)
        if (!there || there.at < draft.at) await db.put(STORE, draft)
      }
      localStorage.removeItem(key)
    } catch {
      // What cannot be read stays where it is.
    }
  }
}

/** How long the device's store may take to answer before the page goes on without it. */
const PATIENCE_MS = 5000

/** The answer, or a refusal once it took too long; what was asked for goes on. */
function soon<T>(asked: Promise<T>): Promise<T> {
  return new Promise((answer, refuse) => {
    const late = () => {
      stuck = true
      refuse(new Error('the store does not answer'))
    }
    const clock = setTimeout(late, stuck ? 0 : PATIENCE_MS)
    const ended = () => {
      clearTimeout(clock)
      stuck = false
    }
    asked.then(answer, refuse).finally(ended)
  })
}

/** Whether the store did not answer when it was asked last: it is not waited for a second time. */
let stuck = false
let opened: Promise<IDBPDatabase<Kept> | null> | null = null

async function database(): Promise<IDBPDatabase<Kept> | null> {
  opened ??= open().then((db) => {
    // It came late: what the page held meanwhile is kept now, and what was to go goes.
    if (db && stuck) {
      for (const id of gone) void dropDraft(id)
      for (const draft of held.values()) void putDraft(draft)
      changed()
    }
    return db
  })
  return soon(opened).catch(() => null)
}

async function open(): Promise<IDBPDatabase<Kept> | null> {
  try {
    const db = await openDB<Kept>('bright-spoon', 1, {
      upgrade: (fresh) => void fresh.createObjectStore(STORE, { keyPath: 'id' }),
      // Another tab wants a newer form: let it, and open again when asked.
      blocking: (_now, _wanted, event) => {
        ;(event.target as IDBDatabase).close()
        opened = null
      },
      terminated: () => {
        opened = null
      },
    })
    await bringOld(db)
    await bringLeft(db)
    return db
  } catch {
    opened = null
    return null
  }
}

/** Work that an older version of the page kept is not lost. */
async function bringOld(db: IDBPDatabase<Kept>) {
  let keys: string[]
  try {
    keys = Object.keys(localStorage).filter((key) => key.startsWith(OLD))
  } catch {
    return
  }
  for (const key of keys) {
    const name = key.slice(OLD.length)
    const noun: Noun = name.startsWith('order-') ? 'order' : 'formula'
    const thing = noun === 'order' ? name.slice('order-'.length) : name
    try {
      const old = JSON.parse(localStorage.getItem(key) ?? 'null') as unknown
      if (!isObject(old)) continue
      const draft = {
        id: newId(),
        noun,
        thing: thing === 'new' ? null : thing,
        tab: 'before',
        basedOn: old.basedOn,
        name: isObject(old.document) && isText(old.document.name) ? old.document.name : '',
        at: old.at,
        document: old.document,
      }
      if (!isDraft(draft)) continue
      await db.put(STORE, draft)
      localStorage.removeItem(key)
    } catch {
      // What cannot be read stays where it is.
    }
  }
}

/** One thing after the other, so that a late write never undoes a removal. */
let last: Promise<unknown> = Promise.resolve()

function inTurn<T>(act: () => Promise<T>): Promise<T> {
  const done = last.then(act, act)
  last = done.catch(() => undefined)
  return done
}

/** Keeps a draft. Whether the device took it, {@link somethingHeld} tells. */
export function putDraft(draft: Omit<Draft, 'tab' | 'at'>): Promise<void> {
  const whole: Draft = { ...draft, tab: TAB_ID, at: new Date().toISOString() }
  underway.set(whole.id, whole)
  gone.delete(whole.id)
  guardTheDoor()
  return inTurn(async () => {
    // A newer state of it is on its way: that one is kept.
    if (underway.get(whole.id) !== whole) return
    const before = held.size
    try {
      const db = await database()
      if (!db) throw new Error('no store')
      const put = db.put(STORE, whole)
      put.then(() => tookLate(whole)).catch(() => undefined)
      await soon(put)
      held.delete(whole.id)
    } catch {
      if (!gone.has(whole.id)) held.set(whole.id, whole)
    }
    if (underway.get(whole.id) === whole) underway.delete(whole.id)
    guardTheDoor()
    tellDrafts()
    if (before !== held.size || before > 0) changed()
  })
}

/** The device took a draft after all that the page had begun to hold. */
function tookLate(draft: Draft) {
  if (held.get(draft.id) !== draft) return
  held.delete(draft.id)
  guardTheDoor()
  tellDrafts()
  changed()
}

/** Removes a draft. One the device cannot remove yet is no longer listed, and goes when it can. */
export function dropDraft(id: string): Promise<void> {
  underway.delete(id)
  gone.add(id)
  guardTheDoor()
  return inTurn(async () => {
    // It was written again meanwhile.
    if (!gone.has(id)) return
    let there = held.delete(id)
    guardTheDoor()
    try {
      const db = await database()
      if (!db) throw new Error('no store')
      // Asked in one go: the device does them in this order, also when it answers late.
      const key = db.getKey(STORE, id)
      const removed = db.delete(STORE, id)
      removed.then(() => gone.delete(id)).catch(() => undefined)
      key.catch(() => undefined)
      await soon(removed)
      if (await key) {
        there = true
        tellDrafts()
      }
    } catch {
      // It stays among those that are to go.
    }
    if (there) changed()
  })
}

async function readAll(): Promise<unknown[]> {
  const db = await database()
  return db ? soon(db.getAll(STORE)) : []
}

/** All drafts of this device, the newest first. */
export function allDrafts(): Promise<Draft[]> {
  return inTurn(async () => {
    const kept: unknown[] = await readAll().catch(() => [])
    const good = kept.filter(isDraft).filter((draft) => !held.has(draft.id) && !gone.has(draft.id))
    return [...good, ...held.values()].sort((a, b) => b.at.localeCompare(a.at))
  })
}
