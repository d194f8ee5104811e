import { useEffect, useState } from 'react'
import type { DayView, KeptReport, Report, ViewStep } from '../../api/client'

/** Minutes of a plan on the clock of its kitchen. */
export interface Wall {
  /** "06:40". */
  time: (minute: number) => string
  /** "Sat 06:40". */
  dayTime: (minute: number) => string
  /** "Saturday". */
  day: (minute: number) => string
  /** "Sat 5 Dec". */
  date: (minute: number) => string
  /** As the server reads it: "2026-12-05T06:40:00". */
  local: (minute: number) => string
  /** The moment, RFC 3339. */
  iso: (minute: number) => string
}

function at(view: Pick<DayView, 'begins_at'>, minute: number): Date {
  return new Date(Date.parse(view.begins_at) + 60_000 * minute)
}

export function wallOf(view: Pick<DayView, 'begins_at' | 'zone'>): Wall {
  const timeZone = view.zone
  const say = (options: Intl.DateTimeFormatOptions) => {
    const format = new Intl.DateTimeFormat('en-GB', { timeZone, ...options })
    return (minute: number) => format.format(at(view, minute)).replace(',', '')
  }
  const clock = { hour: '2-digit', minute: '2-digit' } as const
  const local = new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short', timeStyle: 'medium' })
  return {
    time: say(clock),
    dayTime: say({ weekday: 'short', ...clock }),
    day: say({ weekday: 'long' }),
    date: say({ weekday: 'short', day: 'numeric', month: 'short' }),
    local: (minute) => local.format(at(view, minute)).replace(' ', 'T'),
    iso: (minute) => at(view, minute).toISOString(),
  }
}

/** The wall clock of a zone now: "2026-12-05T06:40:00". */
export function nowIn(zone: string): string {
  const format = new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'medium' })
  return format.format(new Date()).replace(' ', 'T')
}

/** The minute of a plan it is now; looked at again every quarter of a minute. */
export function useNow(beginsAt: string): number {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    const timer = window.setInterval(() => setNow(Date.now()), 15_000)
    return () => window.clearInterval(timer)
  }, [])
  return Math.floor((now - Date.parse(beginsAt)) / 60_000)
}

/** A time of day as it is typed: 6, 6:40, 6.40, 640, 0640; none where it is none. */
export function readTime(text: string): string | null {
  const match = /^(\d{1,2})(?:[:.h]?(\d{2}))?$/.exec(text.trim().toLowerCase())
  if (!match) return null
  const [hour, minute] = [Number(match[1]), Number(match[2] ?? 0)]
  if (hour > 23 || minute > 59) return null
  return `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`
}

/** Minutes as a cook says them: "1 h 20". */
export function span(minutes: number): string {
  const whole = Math.round(minutes)
  const hours = Math.floor(whole / 60)
  const rest = whole % 60
  if (hours === 0) return `${rest} min`
  return rest === 0 ? `${hours} h` : `${hours} h ${String(rest).padStart(2, '0')}`
}

export type Stage = 'to_come' | 'begun' | 'done'

/** How far each step is, by its key, by all that was said in its order; what must be done besides is. */
export function stages(
  reports: readonly KeptReport[],
  supposed: readonly string[] = [],
): Map<string, { stage: Stage; cook?: string }> {
  const all = new Map<string, { stage: Stage; cook?: string }>()
  for (const { event } of reports) {
    const own = event as Report
    const stage = own.said === 'begun' ? 'begun' : own.said === 'done' ? 'done' : 'to_come'
    all.set(own.step, own.cook ? { stage, cook: own.cook } : { stage })
  }
  for (const step of supposed) all.set(step, { stage: 'done' })
  return all
}

/** Steps of hands still to do, in the order of their times; those begun first. */
export function toDo(view: DayView, stage: (step: ViewStep) => Stage, cook: number | null): ViewStep[] {
  return view.steps
    .filter((step) => step.hands && step.begins != null && stage(step) !== 'done')
    .filter((step) => cook === null || step.cook === cook)
    .sort((a, b) => (a.begins ?? 0) - (b.begins ?? 0))
}

/** What comes out of somewhere for a step: "domes out of the freezer". */
export function takenOut(view: DayView, step: ViewStep): string[] {
  const waits = view.waits.filter((wait) => wait.to === step.step && wait.place)
  return waits.map((wait) => `${wait.of} out of the ${wait.place}`)
}

/** The first moment a day of the plan is that of a minute, or the first to come. */
export function dayOf(view: DayView, minute: number): number {
  const at = view.days.findIndex((day) => minute < Math.max(day.strip[1] ?? 0, day.work?.[1] ?? 0))
  return at < 0 ? Math.max(0, view.days.length - 1) : at
}
