import { describe, expect, it } from 'vitest'
import type { ComponentSummary } from '../api/client'
import { componentOf, madeKey, madeOf } from './madeHere'

function kept(id: string, made_of: string[]): ComponentSummary {
  return {
    id,
    made_of,
    name: id,
    family: 'ganache',
    family_word: 'ganache',
    job: 'fill',
    revision: 1,
    saved_at: '',
    tags: [],
    archived: false,
  }
}

describe('what is made here', () => {
  it('is named at its newest, or held at a version', () => {
    expect(componentOf(madeKey('daily'))).toEqual({ component: 'daily', version: null, beside: false })
    expect(componentOf(madeKey('daily', 3))).toEqual({ component: 'daily', version: 3, beside: false })
    expect(componentOf(madeKey('daily', 3, true))).toEqual({ component: 'daily', version: 3, beside: true })
    expect(componentOf('own-daily')).toBeNull()
  })

  it('goes into nothing that goes into it', () => {
    const all = [kept('daily', []), kept('feast', ['daily']), kept('tier', ['feast']), kept('soak', [])]
    expect([...madeOf('daily', all)].sort()).toEqual(['daily', 'feast', 'tier'])
    expect([...madeOf('tier', all)]).toEqual(['tier'])
    // A circle that stands in the file already ends.
    expect(madeOf('a', [kept('a', ['b']), kept('b', ['a'])]).size).toBe(2)
  })
})
