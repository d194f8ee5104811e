import { describe, expect, it } from 'vitest'
import { readTime, span, stages, wallOf } from './time'

describe('minutes of a plan', () => {
  // The night clocks go back in Lisbon, 25 October 2026 (IANA time zone database).
  const wall = wallOf({ begins_at: '2026-10-23T23:00:00Z', zone: 'Europe/Lisbon' })
  it('are on the clock of the kitchen, through the night the clocks change', () => {
    expect(wall.dayTime(0)).toBe('Sat 00:00')
    expect(wall.local(8 * 60)).toBe('2026-10-24T08:00:00')
    // A day and eight hours later by the minutes that passed it is seven.
    expect(wall.local(32 * 60)).toBe('2026-10-25T07:00:00')
    expect(wall.iso(60)).toBe('2026-10-24T00:00:00.000Z')
  })
  it('are said as a cook says them', () => {
    expect([span(5), span(60), span(125)]).toEqual(['5 min', '1 h', '2 h 05'])
  })
})

describe('a time as it is typed', () => {
  it.each([
    ['6', '06:00'],
    ['6:40', '06:40'],
    ['0640', '06:40'],
    ['640', '06:40'],
    ['18.05', '18:05'],
    ['9h30', '09:30'],
    ['23:59', '23:59'],
    ['24:00', null],
    ['6:4', null],
    ['noon', null],
    ['', null],
  ])('%s', (text, time) => expect(readTime(text)).toBe(time))
})

describe('how far a step is', () => {
  it('counts what was said last', () => {
    const said = (step: string, word: 'begun' | 'done' | 'taken_back', place: number) => ({
      place,
      id: `report-${place}`,
      at: '2026-12-05T06:00:00Z',
      kept_at: '2026-12-05T06:00:00Z',
      device: null,
      event: { step, said: word, at: '2026-12-05T06:00:00Z' },
    })
    const all = stages([
      said('a', 'begun', 1),
      said('a', 'done', 2),
      said('b', 'done', 3),
      said('b', 'taken_back', 4),
    ])
    expect(all.get('a')?.stage).toBe('done')
    expect(all.get('b')?.stage).toBe('to_come')
    // Begun is what comes after it, so the kitchen's core says it must be done.
    expect(stages([said('a', 'begun', 1)], ['bake']).get('bake')?.stage).toBe('done')
  })
})
