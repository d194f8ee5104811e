import type { DayView, ViewStep, ViewWait } from '../../api/client'

/** Something drawn in a lane, minutes. */
export interface Span {
  from: number
  to: number
  /** What is written before it begins here. */
  lead?: number
}

/** Puts spans into as few rows as they need, each in the first that is free. `room` is kept free behind each. */
export function packed<T extends Span>(spans: readonly T[], room: (own: T) => number = () => 0): T[][] {
  const rows: { end: number; spans: T[] }[] = []
  const begins = (own: T) => own.lead ?? own.from
  for (const own of [...spans].sort((a, b) => begins(a) - begins(b) || b.to - a.to)) {
    const end = Math.max(own.to, own.from + room(own))
    const row = rows.find((each) => each.end <= begins(own))
    if (row) {
      row.spans.push(own)
      row.end = end
    } else rows.push({ end, spans: [own] })
  }
  return rows.map((row) => row.spans)
}

/** A block of a step in a lane. */
export interface Block extends Span {
  step: ViewStep
}

/** A thread of what stands somewhere. */
export interface Thread extends Span {
  wait: ViewWait
  /** It goes on before, or after, what is shown. */
  before: boolean
  after: boolean
}

/** A lane with its rows. */
export interface LaneRows {
  key: string
  word: string
  rows: Block[][]
  /** Whose hands it is of; none for a machine. */
  cook: number | null
}

const WORDS: Record<string, string> = { ice: 'Iced water', rack: 'Rack' }

export function laneWord(key: string): string {
  return WORDS[key] ?? key.charAt(0).toUpperCase() + key.slice(1)
}

function within(view: DayView, [from, to]: readonly number[]): Block[] {
  const begin = from ?? 0
  const end = to ?? 0
  return view.steps
    .filter((step) => step.begins != null && step.begins < end && step.begins + step.lasts > begin)
    .map((step) => ({ step, from: step.begins ?? 0, to: (step.begins ?? 0) + step.lasts }))
}

/** The lanes of a day: each cook, then each machine that runs on it. */
export function lanesOf(view: DayView, strip: readonly number[]): LaneRows[] {
  const blocks = within(view, strip)
  const cooks = view.cooks.map((cook, at) => ({
    key: `cook-${at}`,
    word: cook.name,
    cook: at,
    rows: packed(blocks.filter((own) => own.step.cook === at)),
  }))
  const machines = view.lanes
    .filter((lane) => lane.runs)
    .map((lane) => ({
      key: lane.key,
      word: laneWord(lane.key),
      cook: null,
      rows: packed(blocks.filter((own) => own.step.on.includes(lane.key))),
    }))
  return [...cooks, ...machines].filter((lane) => lane.rows.length > 0)
}

/** Shorter than this nothing is drawn as standing, min. */
const SHORT = 15

/** What stands in the cold or on a rack on a day, packed to rows; each batch once a place. */
export function threadsOf(
  view: DayView,
  strip: readonly number[],
  labelMinutes: (own: Thread) => number,
): Thread[][] {
  const begin = strip[0] ?? 0
  const end = strip[1] ?? 0
  const seen = new Map<string, Thread>()
  for (const wait of view.waits) {
    const from = wait.stands?.[0]
    const to = wait.stands?.[1]
    if (!wait.place || from === undefined || to === undefined || to - from < SHORT) continue
    if (from >= end || to <= begin) continue
    const key = `${wait.from}-${wait.place}`
    const own = {
      wait,
      from: Math.max(from, begin),
      to: Math.min(to, end),
      before: from < begin,
      after: to > end,
    }
    const known = seen.get(key)
    if (!known || known.to < own.to) seen.set(key, own)
  }
  // Words that do not fit before the end of the day stand before the end of the thread.
  const all = [...seen.values()].map((own) => {
    const words = labelMinutes(own)
    return own.from + words > end
      ? { ...own, lead: Math.max(begin, Math.min(own.from, own.to - words)) }
      : own
  })
  return packed(all, (own) => (own.lead === undefined ? labelMinutes(own) : 0))
}

/** Blocks of one batch one after the other: they are named once, above them. */
export interface Run extends Span {
  order: number
  of: string
}

/** A gap up to this does not end a run, min. */
const GAP = 10

/** The runs of a row. */
export function runsOf(row: readonly Block[]): Run[] {
  const all: Run[] = []
  for (const { step, from, to } of row) {
    const last = all.at(-1)
    if (last && last.of === step.of && last.order === step.order && from - last.to <= GAP) last.to = to
    else all.push({ order: step.order, of: step.of, from, to })
  }
  return all
}

/** How the blocks of an order are filled; with its letter, never by colour alone. */
export const FILLS = [
  'bg-ink text-enamel border-ink',
  'bg-rim text-rim-text border-rim',
  'bg-enamel text-ink border-ink',
  'bg-shade text-ink border-ink border-dashed',
] as const

export function fillOf(order: number): string {
  return FILLS[order % FILLS.length] ?? FILLS[0]
}

/** Steps of the chains of a step: what holds it. */
export function chainOf(step: ViewStep | undefined): Set<number> {
  const all = new Set<number>()
  for (const own of [...(step?.not_later ?? []), ...(step?.not_earlier ?? [])]) {
    all.add(own.step)
    if (own.by != null) all.add(own.by)
  }
  return all
}
