import { describe, expect, it } from 'vitest'
import type { DayView } from '../../api/client'
import { shelfLabels } from './labels'

/** As much of a view as labels are made of. */
function viewOf(waits: Partial<DayView['waits'][number]>[]): DayView {
  const orders = ['A', 'B', 'C'].map((letter) => ({ letter, name: `Order ${letter}` }))
  const steps = [
    { step: 0, letters: 'A+C' },
    { step: 1, letters: 'B' },
  ]
  return { orders, steps, waits } as unknown as DayView
}

describe('shelf labels', () => {
  it('name every order of a shared batch once, with its last moment the earliest of all', () => {
    const curd = { from: 0, of: 'Curd', place: 'fridge' }
    const labels = shelfLabels(
      viewOf([
        { ...curd, letters: 'A', stands: [100, 400], not_after: 900 },
        { ...curd, letters: 'C', stands: [100, 700], not_after: 1200 },
        { from: 1, of: 'Mousse', place: 'freezer', letters: 'B', stands: [0, 60], not_after: null },
      ]),
    )
    expect(labels).toHaveLength(2)
    expect(labels[0]).toMatchObject({
      letter: 'A+C',
      order: 'Order A, Order C',
      until: 700,
      useBy: 900,
    })
    expect(labels[1]).toMatchObject({ letter: 'B', order: 'Order B', useBy: null })
  })

  it('are not printed for what stands less than half an hour, or nowhere', () => {
    const own = { from: 1, of: 'Mousse', letters: 'B' }
    expect(
      shelfLabels(
        viewOf([
          { ...own, place: 'fridge', stands: [0, 20] },
          { ...own, place: null, stands: [0, 300] },
        ]),
      ),
    ).toEqual([])
  })
})
