import { useState } from 'react'
import { asking, useQuestion } from '../../api/ask'
import type { Body, ResizeAsk, StackDocument } from '../../api/client'
import { Button } from '../../ui/Button'
import { NumberField } from '../../ui/NumberField'
import { Sheet } from '../../ui/Sheet'
import { BodyFields } from './TierFields'
import { Tick } from '../../ui/Tick'

interface ResizeSheetProps {
  document: StackDocument
  room: number
  portions: number
  onUse: (document: StackDocument, pieces: number) => void
  onClose: () => void
}

/** The whole cake in another tin, or for another number of people. */
export function ResizeSheet({ document, room, portions, onUse, onClose }: ResizeSheetProps) {
  const [way, setWay] = useState<'tin' | 'servings'>('tin')
  const [servings, setServings] = useState(Math.max(1, portions))
  const [body, setBody] = useState<Body>(document.tiers[0]?.body ?? { shape: 'round', diameter_mm: 180 })
  const ask: ResizeAsk = {
    document,
    room_c: room,
    to: way === 'tin' ? { to: 'tin', body } : { to: 'servings', servings },
  }
  const { found, current, wrong } = useQuestion(asking('post', '/api/stack/resize', { body: ask }))
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && onClose()}
      title="Another size"
      lead="The lowest tier goes into another tin and the others follow; heights stay. Or for so many people."
    >
      <div role="radiogroup" aria-label="To what" className="flex flex-wrap gap-5">
        {(
          [
            ['tin', 'Another tin or mould'],
            ['servings', 'So many portions'],
          ] as const
        ).map(([key, word]) => (
          <Tick key={key} radio="resize" checked={way === key} onChange={() => setWay(key)}>
            {word}
          </Tick>
        ))}
      </div>
      {way === 'tin' ? (
        <BodyFields body={body} onBody={setBody} />
      ) : (
        <NumberField
          label="Portions"
          unit=""
          min={1}
          max={2000}
          step={1}
          value={servings}
          onCommit={(value) => setServings(Math.round(value))}
        />
      )}
      {wrong && (
        <p role="alert" className="text-hot">
          {wrong}
        </p>
      )}
      <p role="status" className="min-h-10 text-lead">
        {found && current ? found.sentence : ''}
      </p>
      <div className="flex gap-2">
        <Button
          look="primary"
          disabled={!found || !current}
          onClick={() => found && onUse(found.document, found.pieces)}
        >
          Make it this size
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </Sheet>
  )
}
