import { describe, expect, it } from 'vitest'
import { same } from './same'

describe('two documents', () => {
  it('say the same whatever the order of their fields and however an empty one is written', () => {
    expect(same({ a: 1, b: [{ c: 2, d: null }] }, { b: [{ d: '', c: 2 }], a: 1, e: undefined })).toBe(true)
  })
  it('differ by any value, by order in a list, and by nought and nothing', () => {
    expect(same({ a: 1 }, { a: 2 })).toBe(false)
    expect(same([1, 2], [2, 1])).toBe(false)
    expect(same({ a: 0 }, {})).toBe(false)
    expect(same({ a: false }, {})).toBe(false)
  })
})
