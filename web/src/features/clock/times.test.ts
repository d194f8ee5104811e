import { describe, expect, it } from 'vitest'
import { minutesWords, timeWords } from './times'

describe('times of the clock', () => {
  it('goes over midnight and says how many days', () => {
    expect(timeWords('13:05', 65)).toBe('14:10')
    expect(timeWords('13:05', 785)).toBe('02:10 +1')
    expect(timeWords('23:59', 1)).toBe('00:00 +1')
    expect(timeWords('9:05', 3000)).toBe('11:05 +2')
  })
  it('says minutes where no time was written', () => {
    expect(timeWords('', 42)).toBe('42 min')
    expect(timeWords('noon', 150)).toBe('2.5 h')
  })
  it('is no finer than minutes are known', () => {
    expect(minutesWords(0.53)).toBe('0.5 min')
    expect(minutesWords(64.7)).toBe('65 min')
    expect(minutesWords(130)).toBe('2 h 10 min')
    expect(minutesWords(119.8)).toBe('2 h')
    expect(minutesWords(851)).toBe('14 h')
  })
})
