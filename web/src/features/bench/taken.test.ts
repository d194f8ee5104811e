import { describe, expect, it } from 'vitest'
import { leftWords, readKept, readLeft, strainedAs, strainedTo, takenWords, withTaken } from './taken'

describe('what is taken off', () => {
  it('reads how much is left, and writes it as it reads it', () => {
    for (const [typed, read] of [
      ['60 %', { to: 'share', of_weight: 0.6 }],
      ['420g', { to: 'weight', left_g: 420 }],
      ['1.2 kg', { to: 'weight', left_g: 1200 }],
      ['72 °Bx', { to: 'brix', brix: 72 }],
      ['118 C', { to: 'temperature', c: 118 }],
      ['244.4 °F', { to: 'temperature', c: 118 }],
      ['', null],
      ['60', undefined],
      ['half', undefined],
      ['0 g', undefined],
      ['1,200 g', undefined],
    ] as const) {
      expect(readLeft(typed), typed).toEqual(read)
      if (read) expect(readLeft(leftWords(read))).toEqual(read)
    }
  })

  it('strains to a weight or a share alone', () => {
    expect(readKept('118 C')).toBeUndefined()
    expect(readKept('55,5 %')).toEqual({ to: 'share', of_weight: 0.555 })
  })

  it('keeps the rest of a line', () => {
    const line = { key: 'a', ingredient: 'yoghurt', amount: '500 g', cook_c: 40 }
    const strained = strainedTo('drained stays', { to: 'weight', left_g: 300 })
    const after = withTaken(line, { strained, steeped: null, boiled: null })
    expect(after).toEqual({
      ...line,
      strained: { how: 'drained', keeps: 'stays', left: { to: 'weight', left_g: 300 } },
    })
    expect(strainedAs(after.strained)).toBe('drained stays')
    expect(takenWords(after)).toBe('drained, 300 g kept')
    expect(withTaken(after, { strained: null, steeped: null, boiled: null })).toEqual(line)
  })
})
