import { describe, expect, it } from 'vitest'
import table from '../../../crates/pastry/tests/it/data/numbers.csv?raw'
import { celsius, readNumber, readTemperature } from './number'

describe('a typed number', () => {
  const rows = table
    .split('\n')
    .filter((row) => row !== '' && !row.startsWith('#'))
    .slice(1)
  it('is read as the table of cases says, which the core is held to as well', () => {
    expect(rows.length).toBeGreaterThan(30)
    for (const row of rows) {
      const at = row.indexOf('|')
      const [text, wanted] = [row.slice(0, at), row.slice(at + 1)]
      const read = readNumber(text)
      const said =
        read.kind === 'number'
          ? String(read.value)
          : read.kind === 'wrong' && read.words.includes('two ways')
            ? 'two ways'
            : 'none'
      expect(said, `“${text}”`).toBe(
        wanted === 'none' || wanted === 'two ways' ? wanted : String(Number(wanted)),
      )
    }
  })
})

describe('a typed temperature', () => {
  it('is in degrees Celsius unless it says Fahrenheit', () => {
    for (const [text, value] of [
      ['71', 71],
      ['71 °C', 71],
      ['71c', 71],
      ['160 °F', 71],
      ['160F', 71],
      ['131 f', 55],
      ['-4 °F', -20],
      ['32 °F', 0],
    ] as const) {
      expect(readTemperature(text), text).toMatchObject({ kind: 'number', value })
    }
    for (const text of ['warm', '1,600', '71 °K', '°C']) {
      expect(readTemperature(text).kind, text).toBe('wrong')
    }
  })
  it('has the fixed points of the two scales', () => {
    expect([celsius(32), celsius(212), celsius(-40)]).toEqual([0, 100, -40])
  })
})
