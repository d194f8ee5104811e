import { describe, expect, it } from 'vitest'
import { broughtBy, withOtherKeys } from './brought'

const file = {
  format: 'bright-spoon/formula',
  lines: [
    { ingredient: 'made-daily', amount: '300 g' },
    { ingredient: 'milk', amount: '1 g' },
  ],
  components: [
    { key: 'daily', document: { name: 'Daily', lines: [{ ingredient: 'made-syrup@2', amount: '1 g' }] } },
    { key: 'syrup@2', document: { name: 'Syrup', lines: [] } },
  ],
}

describe('what a file brings', () => {
  it('is found at any depth, each once', () => {
    const order = { cakes: [{ stack: { components: [{ key: 'feast', document: file }] } }, { stack: file }] }
    expect(broughtBy(order).map((each) => each.key)).toEqual(['feast', 'daily', 'syrup@2'])
  })

  it('gets other keys wherever it is named, and nothing else does', () => {
    const cake = { layers: [{ component: 'daily' }, { component: 'other' }], name: 'daily', ...file }
    const other = withOtherKeys(
      cake,
      new Map([
        ['daily', 'x'],
        ['syrup', 'y'],
      ]),
    )
    expect(other.layers).toEqual([{ component: 'x' }, { component: 'other' }])
    expect(other.name).toBe('daily')
    expect(other.lines[0]?.ingredient).toBe('made-x')
    expect(other.components.map((each) => each.key)).toEqual(['x', 'y@2'])
    expect(other.components[0]?.document.lines[0]?.ingredient).toBe('made-y@2')
  })
})
