import { describe, expect, it } from 'vitest'
import { eventOf } from './events'

describe('events of a stream (HTML Living Standard, 9.2)', () => {
  it('are read by name and data, however many lines', () => {
    expect(eventOf('event: plan\ndata: {"a":1}')).toEqual({ name: 'plan', data: { a: 1 } })
    expect(eventOf('data: {"a":\ndata: 2}\nevent: done')).toEqual({ name: 'done', data: { a: 2 } })
  })
  it('a line that only keeps the connection is none', () => {
    expect(eventOf(':')).toBeNull()
    expect(eventOf('')).toBeNull()
  })
})
