import { useSyncExternalStore } from 'react'
import type { DeviceNow } from './client'
import { noteEpoch } from './epoch'

/**
 * The stream of what happens in the kitchen (server-sent events): what was written, and what the devices show. One for
 * the page, open while anything listens and somebody looks; after a break it goes on from the last word it heard.
 */

/** The stream has a word each second: after so long without one nothing on it is live. */
const SILENT_MS = 2500
/** A stream that broke is opened again so soon. */
const AGAIN_MS = 1000

interface Changed {
  noun: string
  key: string
}

interface Show {
  devices: readonly DeviceNow[]
  /** How fast each scale rises, g/s, by its name. */
  rates: ReadonlyMap<string, number>
}

/** A scale is followed over so long, ms, to say how fast it rises; over less than that nothing is said. */
const RATE_MS = 700
const LEAST_MS = 150
let past: { at: number; grams: ReadonlyMap<string, number> }[] = []

function ratesOf(devices: readonly DeviceNow[]): ReadonlyMap<string, number> {
  const now = performance.now()
  const grams = new Map(devices.flatMap((own) => (own.g != null ? [[own.name, own.g] as const] : [])))
  past = [...past.filter((own) => now - own.at < RATE_MS), { at: now, grams }]
  const first = past[0]
  if (!first || now - first.at < LEAST_MS) return new Map()
  const rate = ([name, g]: readonly [string, number]) => {
    const before = first.grams.get(name)
    return [name, before === undefined ? 0 : (1000 * (g - before)) / (now - first.at)] as const
  }
  return new Map([...grams].map(rate))
}

let source: EventSource | null = null
let last: string | null = null
let show: Show | null = null
let silence = 0
let again = 0
const ears = new Set<() => void>()
const writers = new Set<(changed: readonly Changed[]) => void>()

function shown(next: Show | null) {
  if (next === show) return
  show = next
  for (const hear of ears) hear()
}

function heard() {
  window.clearTimeout(silence)
  silence = window.setTimeout(() => {
    shown(null)
    restart()
  }, SILENT_MS)
}

function close() {
  window.clearTimeout(silence)
  window.clearTimeout(again)
  source?.close()
  source = null
}

function restart() {
  close()
  if (ears.size + writers.size > 0 && document.visibilityState === 'visible')
    again = window.setTimeout(open, AGAIN_MS)
}

function open() {
  if (source) return
  source = new EventSource(`/api/live${last === null ? '' : `?after=${last}`}`)
  heard()
  source.addEventListener('devices', (event: MessageEvent<string>) => {
    heard()
    const told = JSON.parse(event.data) as { devices: DeviceNow[] }
    shown({ devices: told.devices, rates: ratesOf(told.devices) })
  })
  source.addEventListener('written', (event: MessageEvent<string>) => {
    heard()
    if (event.lastEventId) last = event.lastEventId
    const told = JSON.parse(event.data) as { changed: Changed[]; epoch: string }
    noteEpoch(told.epoch)
    if (told.changed.length > 0) for (const write of writers) write(told.changed)
  })
  source.onerror = () => {
    shown(null)
    restart()
  }
}

/** Open while it is wanted and seen. */
function look() {
  if (ears.size + writers.size === 0 || document.visibilityState !== 'visible') {
    close()
    shown(null)
  } else if (!source) {
    window.clearTimeout(again)
    open()
  }
}

document.addEventListener('visibilitychange', look)

function listen(hear: () => void) {
  ears.add(hear)
  look()
  return () => {
    ears.delete(hear)
    look()
  }
}

/** What the devices show now; null while nothing is heard of them. */
export function useShow(): Show | null {
  return useSyncExternalStore(listen, () => show)
}

/** Told whenever anybody wrote something into the kitchen's file. */
export function onWritten(hear: (changed: readonly Changed[]) => void): () => void {
  writers.add(hear)
  look()
  return () => {
    writers.delete(hear)
    look()
  }
}
