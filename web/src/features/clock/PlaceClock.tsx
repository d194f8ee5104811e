import { useState } from 'react'
import type { PlaceAnswer, VesselDocument } from '../../api/client'
import { useFamily } from '../../lib/families'
import { clock } from '../../lib/format'
import { Sheet } from '../../ui/Sheet'
import { useComponent, usePrediction } from '../bench/queries'
import { useKitchen } from '../kitchen/queries'
import { usualChoice } from './choice'
import type { ClockChoice } from './choice'
import { ClockSheet } from './ClockSheet'
import type { FormulaDocument } from '../../api/client'

/** What a place of a cake is to heat: a coat on what is under it, a piece of its own, or what waits in the bag. */
export function placeVessel(place: PlaceAnswer): {
  vessel: VesselDocument
  where: 'bench' | 'fridge' | 'freezer'
} {
  const mm = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value))
  const thick = mm(place.thickness_mm, 0.5, 500)
  const coat = (on: 'sponge' | 'masked' | 'mousse', on_c: number): VesselDocument => ({
    kind: 'on_cake',
    height_mm: thick,
    on,
    on_c,
  })
  switch (place.kind) {
    case 'crumb_coat':
      return { vessel: coat('sponge', 20), where: 'fridge' }
    case 'coat':
      return { vessel: coat('masked', 14), where: 'fridge' }
    case 'glaze':
      return { vessel: coat('mousse', -18), where: 'bench' }
    case 'drip':
      return { vessel: { ...coat('masked', 5), height_mm: 2.5 }, where: 'bench' }
    case 'insert':
      return {
        vessel: { kind: 'ring', diameter_mm: mm(place.across_mm, 5, 1500), height_mm: thick },
        where: 'freezer',
      }
    case 'border':
    case 'rosettes':
      return { vessel: { kind: 'bag' }, where: 'bench' }
    default:
      return { vessel: coat('sponge', 20), where: 'fridge' }
  }
}

interface PlaceClockProps {
  place: PlaceAnswer
  component: string
  onClose: () => void
}

/** The clock of a place: its component, as thick as it lies there. What is changed here stays here. */
export function PlaceClock({ place, component, onClose }: PlaceClockProps) {
  const kept = useComponent(component)
  const room = useKitchen().data?.room_temperature_c
  const document = kept.data?.document
  if (kept.isError) {
    return (
      <Sheet open onOpenChange={(open) => !open && onClose()} title="Clock">
        <p role="alert" className="text-hot">
          The formula cannot be read now. Close this and try again.
        </p>
      </Sheet>
    )
  }
  if (!document) return null
  const work = room === undefined ? document.work : { ...document.work, room_temperature_c: room }
  return <Opened place={place} document={{ ...document, work }} onClose={onClose} />
}

function Opened({
  place,
  document,
  onClose,
}: {
  place: PlaceAnswer
  document: FormulaDocument
  onClose: () => void
}) {
  const family = useFamily(document.family)
  const { answer } = usePrediction(document)
  const [choice, setChoice] = useState<ClockChoice>(() => {
    const { vessel, where } = placeVessel(place)
    return {
      ...usualChoice(family, clock(new Date()).time),
      vessel,
      places: [{ place: where }],
      kg: place.grams > 1 ? place.grams / 1000 : null,
    }
  })
  return (
    <ClockSheet
      document={document}
      answer={answer}
      choice={choice}
      onChoice={setChoice}
      onUse={null}
      onClose={onClose}
    />
  )
}
