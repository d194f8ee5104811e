import { describe, expect, it } from 'vitest'
import type { BatchEvent, BatchView } from '../../api/client'
import { lastSaid, withWaiting } from './ahead'

const line = (at: number, mark: number, step: number | null) => ({
  line: at,
  ingredient: `own-${at}`,
  name: `Line ${at}`,
  band: { from_g: 0.97 * mark, mark_g: mark, to_g: 1.03 * mark },
  may: '',
  in_g: 0,
  still_g: mark,
  stands: 'open' as const,
  lots: [],
  step,
})
const step = (key: string) => ({ key, what: key, kind: 'hands', minutes: [1, 1], time: '', left_out: false })

/** Two lines before all, one for the second step. */
const view = {
  order: [0, 1, 2],
  lines: [line(0, 100, null), line(1, 50, null), line(2, 10, 1)],
  steps: [step('chop'), step('butter')],
  line: 0,
  step: null,
  happened: [{ id: 'there' }],
} as unknown as BatchView

const at = '2026-01-05T08:00:00Z'
const after = (...events: BatchEvent[]) =>
  withWaiting(
    view,
    events.map((event, own) => ({ id: `event-${own}`, at, event })),
  )
const weighed = (own: number, grams: number): BatchEvent => ({
  what: 'weighed',
  line: own,
  grams,
  by: 'hand',
})

describe('a batch while the kitchen is away', () => {
  it('is as it was while nothing is on this device', () => {
    expect(withWaiting(view, [])).toBe(view)
    expect(withWaiting(view, [{ id: 'there', at, event: weighed(0, 100) }])).toBe(view)
  })

  it('goes on to what is not in yet, in the order of weighing and of the steps', () => {
    expect(after(weighed(0, 60))).toMatchObject({ line: 0, step: null })
    expect(after(weighed(0, 60)).lines[0]).toMatchObject({ in_g: 60, still_g: 40, stands: 'short' })
    expect(after(weighed(0, 60), weighed(0, 40))).toMatchObject({ line: 1 })
    const both = [weighed(0, 100), weighed(1, 50)]
    expect(after(...both)).toMatchObject({ line: null, step: 0 })
    expect(after(...both, { what: 'done', step: 'chop' })).toMatchObject({ line: 2, step: null })
    const all = [...both, { what: 'done', step: 'chop' } as BatchEvent, weighed(2, 10)]
    expect(after(...all)).toMatchObject({ line: null, step: 1 })
    expect(after(...all, { what: 'step_left_out', step: 'butter' })).toMatchObject({ line: null, step: null })
  })

  it('stays at a line that is over until something is decided', () => {
    expect(after(weighed(0, 120))).toMatchObject({ line: 0 })
    expect(after(weighed(0, 120)).lines[0]?.stands).toBe('over')
    expect(after(weighed(0, 120), { what: 'decided', line: 0, way: 'leave' })).toMatchObject({ line: 1 })
    expect(after({ what: 'line_left_out', line: 0 })).toMatchObject({ line: 1 })
  })

  it('is as it was once what waits here was taken back', () => {
    expect(after(weighed(0, 120), { what: 'taken_back', of: 'event-0' })).toMatchObject({ line: 0 })
    expect(after(weighed(0, 120), { what: 'taken_back', of: 'event-0' }).lines[0]?.stands).toBe('open')
  })
})

describe('what a key takes back', () => {
  const said = {
    ...view,
    happened: [
      { id: 'theirs', device: 'Other tablet', taken_back: false },
      { id: 'gone', device: 'Mine', taken_back: true },
      { id: 'mine', device: 'Mine', taken_back: false },
    ],
  } as unknown as BatchView
  const waits = (...events: BatchEvent[]) => events.map((event, own) => ({ id: `event-${own}`, at, event }))

  it('is the last that waits here, however late the kitchen is', () => {
    expect(lastSaid(said, waits(weighed(0, 60), weighed(1, 50)), 'Mine')).toBe('event-1')
    const back: BatchEvent = { what: 'taken_back', of: 'event-1' }
    expect(lastSaid(said, waits(weighed(0, 60), weighed(1, 50), back), 'Mine')).toBe('event-0')
  })

  it('is else the last this device said, and never what another did', () => {
    expect(lastSaid(said, [], 'Mine')).toBe('mine')
    expect(lastSaid(said, waits({ what: 'taken_back', of: 'mine' }), 'Mine')).toBeUndefined()
    expect(lastSaid(said, [], 'A third')).toBeUndefined()
  })
})
