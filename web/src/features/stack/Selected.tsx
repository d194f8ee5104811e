import { lazy, Suspense, useState } from 'react'
import type { PlaceAnswer, StackAnswer, StackDocument } from '../../api/client'
import type { Edit } from '../../desk/history'
import { insertAt, moveBy, readAt, writeAt } from '../../lib/path'
import { Button } from '../../ui/Button'
import { Fields } from './Fields'
import type { Known } from './Fields'
import { LISTS } from './fields'
import { Stepper } from './Stepper'
import { TierFields } from './TierFields'

/** Fetched when it is first opened. */
const PlaceClock = lazy(async () => ({ default: (await import('../clock/PlaceClock')).PlaceClock }))

interface SelectedProps {
  answer: StackAnswer
  document: StackDocument
  selected: string | null
  onSelect: (path: string | null) => void
  known: Known
  edit: Edit<StackDocument>
  /** Puts the component of a place on the Bench. */
  onBench: (component: string) => void
}

/** What is selected, and everything that can be done with it. */
export function Selected(props: SelectedProps) {
  const { answer, document, selected, onSelect, edit } = props
  if (!selected) {
    return <p className="text-ink2">Pick a place in the drawing or the list to change it.</p>
  }
  const tier = /^tiers\.(\d+)(\.body|\.layers|\.dowels|\.many)?$/.exec(selected)
  if (tier?.[1] !== undefined) {
    return <TierFields document={document} tier={Number(tier[1])} edit={edit} onSelect={onSelect} />
  }
  const place = answer.places.find((each) => each.path === selected)
  if (!place) return <p className="text-ink2">That place is not there any more.</p>
  return <PlacePanel {...props} place={place} />
}

function PlacePanel({
  document,
  place,
  known,
  edit,
  onSelect,
  onBench,
}: SelectedProps & { place: PlaceAnswer }) {
  const parts = place.path.split('.')
  const last = parts.at(-1) ?? ''
  const list = parts.at(-2) ?? ''
  const inList = (LISTS as readonly string[]).includes(list)
  const parent = parts.slice(0, -1).join('.')
  const at = Number(last)
  const component = place.component
  const [clock, setClock] = useState(false)
  const move = (by: number) => {
    edit((own) => moveBy(own, parent, at, by))
    const length = readAt(document, parent)
    const to = at + by
    if (Array.isArray(length) && to >= 0 && to < length.length) onSelect(`${parent}.${to}`)
  }
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-lead leading-tight">
        {place.words} <span className="font-[450] text-ink2">tier {place.tier + 1}</span>
      </h2>
      {place.steps.map((step) => (
        <Stepper
          key={step.path}
          step={step}
          onStep={(value) => edit((own) => writeAt(own, step.path, value), step.path)}
        />
      ))}
      <Fields place={place} document={document} known={known} edit={edit} />
      {clock && component && (
        <Suspense>
          <PlaceClock place={place} component={component} onClose={() => setClock(false)} />
        </Suspense>
      )}
      <div className="flex flex-wrap gap-2">
        {component && (
          <Button className="px-3" onClick={() => onBench(component)}>
            Open on the Bench
          </Button>
        )}
        {component && place.kind !== 'soak' && (
          <Button className="px-3" onClick={() => setClock(true)}>
            Clock
          </Button>
        )}
        {place.kind === 'sponge' && readAt(document, `${place.path}.soak`) == null && (
          <Button
            className="px-3"
            onClick={() =>
              edit((own) => writeAt(own, `${place.path}.soak`, { grade: 'moist', dry_rim_mm: 10 }))
            }
          >
            Soak it
          </Button>
        )}
        {place.kind === 'filling' && (
          <>
            {readAt(document, `${place.path}.dam`) == null && (
              <Button
                className="px-3"
                onClick={() => edit((own) => writeAt(own, `${place.path}.dam`, { width_mm: 12 }))}
              >
                Put a dam round it
              </Button>
            )}
            <Button
              className="px-3"
              onClick={() =>
                edit((own) =>
                  insertAt(own, `${place.path}.inserts`, 99, {
                    diameter_mm: 40,
                    thickness_mm: 8,
                    above_mm: 2,
                  }),
                )
              }
            >
              Set a disc into it
            </Button>
          </>
        )}
        {inList && list !== 'inserts' && (
          <>
            <Button className="px-3" onClick={() => move(1)}>
              Up
            </Button>
            <Button className="px-3" onClick={() => move(-1)}>
              Down
            </Button>
            <Button
              className="px-3"
              onClick={() => edit((own) => insertAt(own, parent, at + 1, readAt(own, place.path)))}
            >
              One more
            </Button>
          </>
        )}
        <Button
          look="quiet"
          className="px-3"
          onClick={() => {
            edit((own) => writeAt(own, place.path, null))
            onSelect(null)
          }}
        >
          Take it away
        </Button>
      </div>
    </div>
  )
}
