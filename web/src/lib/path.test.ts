import { describe, expect, it } from 'vitest'
import { insertAt, moveBy, readAt, writeAll, writeAt } from './path'

const cake = {
  tiers: [{ layers: [{ kind: 'sponge' }, { kind: 'filling', thickness_mm: 8 }] }, { layers: [] }],
}

describe('paths inside a document', () => {
  it('reads what is there and nothing where nothing is', () => {
    expect(readAt(cake, 'tiers.0.layers.1.thickness_mm')).toBe(8)
    expect(readAt(cake, 'tiers.7.layers.1.dam')).toBeUndefined()
  })

  it('writes a copy and leaves the rest as it was', () => {
    const next = writeAt(cake, 'tiers.0.layers.1.thickness_mm', 6)
    expect(readAt(next, 'tiers.0.layers.1.thickness_mm')).toBe(6)
    expect(readAt(cake, 'tiers.0.layers.1.thickness_mm')).toBe(8)
    expect(next.tiers[1]).toBe(cake.tiers[1])
  })

  it('takes a field or an item of a list away', () => {
    expect(writeAt(cake, 'tiers.0.layers.0', null).tiers[0]?.layers).toEqual([
      { kind: 'filling', thickness_mm: 8 },
    ])
    expect(writeAt({ glaze: 1, coat: 2 }, 'glaze', undefined)).toEqual({ coat: 2 })
  })

  it('writes several places as one, in their order', () => {
    const next = writeAll(cake, [
      { path: 'tiers.0.layers.1.dam', value: { width_mm: 12 } },
      { path: 'tiers.0.layers.1.dam.width_mm', value: 14 },
      { path: 'tiers.1.coat', value: { side_mm: 5 } },
    ])
    expect(readAt(next, 'tiers.0.layers.1.dam.width_mm')).toBe(14)
    expect(readAt(next, 'tiers.1.coat.side_mm')).toBe(5)
  })

  it('inserts and moves within the list, and not out of it', () => {
    const kinds = (own: typeof cake) => own.tiers[0]?.layers.map((layer) => layer.kind)
    expect(kinds(insertAt(cake, 'tiers.0.layers', 1, { kind: 'soak' }))).toEqual([
      'sponge',
      'soak',
      'filling',
    ])
    expect(kinds(moveBy(cake, 'tiers.0.layers', 0, 1))).toEqual(['filling', 'sponge'])
    expect(moveBy(cake, 'tiers.0.layers', 1, 1)).toBe(cake)
  })
})
