import { useState } from 'react'
import type { BatchView, Happening } from '../../api/client'
import { clock } from '../../lib/format'
import { readNumber } from '../../lib/number'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import type { Say } from './say'

interface HappenedProps {
  view: BatchView
  onSay: Say
  onClose: () => void
}

/** Everything that happened, the last first: corrected or taken back, and the old reading stays. */
export function Happened({ view, onSay, onClose }: HappenedProps) {
  return (
    <Sheet
      open
      onOpenChange={onClose}
      title="What happened"
      lead="A correction stands beside what was read first."
    >
      <ol className="min-h-0 overflow-y-auto">
        {view.happened.map((own) => (
          <Line key={own.id} own={own} onSay={onSay} />
        ))}
        {view.happened.length === 0 && <li>Nothing yet.</li>}
      </ol>
    </Sheet>
  )
}

function Line({ own, onSay }: { own: Happening; onSay: HappenedProps['onSay'] }) {
  const [typed, setTyped] = useState<string | null>(null)
  const read = typed === null ? null : readNumber(typed)
  return (
    <li className="flex flex-wrap items-center gap-2 border-b border-line py-1.5">
      <span className="w-14 text-note text-ink2">{clock(new Date(own.at)).time}</span>
      <span className={`min-w-0 flex-1 ${own.taken_back ? 'text-ink3 line-through' : ''}`}>
        {own.words}
        {own.was && <span className="block text-note text-ink2">first read: {own.was}</span>}
        {own.taken_back && <span className="sr-only"> (taken back)</span>}
        {own.device && <span className="block text-small text-ink3">{own.device}</span>}
      </span>
      {!own.taken_back && typed === null && (
        <>
          {own.has_number && (
            <Button
              look="quiet"
              className="px-2"
              aria-label={`Correct: ${own.words}`}
              onClick={() => setTyped('')}
            >
              Correct
            </Button>
          )}
          <Button
            look="quiet"
            className="px-2"
            aria-label={`Take back: ${own.words}`}
            onClick={() => onSay({ what: 'taken_back', of: own.id })}
          >
            Take back
          </Button>
        </>
      )}
      {typed !== null && (
        <form
          className="flex items-center gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            if (read?.kind !== 'number') return
            setTyped(null)
            onSay({ what: 'corrected', of: own.id, to: read.value })
          }}
        >
          <input
            aria-label="It should say"
            inputMode="decimal"
            autoFocus
            className="min-h-9 w-24 rounded-lg border border-line2 bg-enamel px-2 text-right"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
          <Button type="submit" disabled={read?.kind !== 'number'}>
            Correct it
          </Button>
        </form>
      )}
    </li>
  )
}
