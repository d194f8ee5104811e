import type { DayView } from '../../api/client'

/** What is written on what stands. */
export interface ShelfLabel {
  key: string
  letter: string
  of: string
  order: string
  place: string
  from: number
  until: number
  useBy: number | null
}

/** A label for each batch and place: until when it stands, and its last moment, the earliest of all that is made of it. */
export function shelfLabels(view: DayView): ShelfLabel[] {
  const all = new Map<string, ShelfLabel>()
  for (const wait of view.waits) {
    const [from, until] = [wait.stands?.[0], wait.stands?.[1]]
    if (!wait.place || from === undefined || until === undefined || until - from < 30) continue
    const key = `${wait.from}-${wait.place}`
    const known = all.get(key)
    // Of one batch for several orders the label names all, whichever of them it stands for longest.
    const letters = view.steps.find((step) => step.step === wait.from)?.letters ?? wait.letters
    const orders = view.orders.filter((order) => letters.split('+').includes(order.letter))
    const last = [known?.useBy, wait.not_after].filter((at): at is number => typeof at === 'number')
    all.set(key, {
      key,
      letter: letters,
      of: wait.of,
      order: orders.map((order) => order.name).join(', '),
      place: wait.place,
      from,
      until: Math.max(until, known?.until ?? until),
      useBy: last.length > 0 ? Math.min(...last) : null,
    })
  }
  return [...all.values()]
}
