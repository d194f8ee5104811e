import { describe, expect, it } from 'vitest'
import { packed } from './strip'

describe('rows of a lane', () => {
  it('are as few as the spans need, and none overlap', () => {
    const spans = Array.from({ length: 60 }, (_, at) => {
      const from = (at * 37) % 200
      return { from, to: from + 5 + ((at * 13) % 40) }
    })
    const rows = packed(spans)
    for (const row of rows) {
      row.slice(1).forEach((own, at) => expect(own.from).toBeGreaterThanOrEqual(row[at]?.to ?? 0))
    }
    // As many rows as stand at once at the fullest moment, and no more (interval graphs are perfect; Golumbic 1980, from memory).
    const fullest = Math.max(
      ...spans.map((own) => spans.filter((other) => other.from <= own.from && own.from < other.to).length),
    )
    expect(rows.length).toBe(fullest)
    expect(rows.flat().length).toBe(60)
  })
})
