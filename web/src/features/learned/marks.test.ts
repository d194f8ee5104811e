import { expect, test } from 'vitest'
import type { MeasuredPoint } from '../../api/client'
import { decades, marksOf } from './marks'

test('families are told apart by shape', () => {
  const of = (family: string) => ({ family, family_word: family }) as unknown as MeasuredPoint
  const marks = marksOf(['ganache', 'curd', 'ganache', 'buttercream'].map(of))
  expect([...marks.keys()]).toEqual(['ganache', 'curd', 'buttercream'])
  expect(new Set([...marks.values()].map((own) => own.path)).size).toBe(3)
})

test('an axis holds all that stands on it', () => {
  for (const values of [[3], [0.4, 900], [120, 130], [1e-3, 2e4], []]) {
    const { domain, ticks } = decades(values)
    for (const own of values) {
      expect(domain[0]).toBeLessThan(own)
      expect(domain[1]).toBeGreaterThan(own)
    }
    expect(ticks.length).toBeGreaterThan(1)
    expect(ticks.every((own) => own >= domain[0] && own <= domain[1])).toBe(true)
  }
})
