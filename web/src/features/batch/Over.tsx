import { useState } from 'react'
import type { BatchEvent, BatchLine, BatchView, OverpourWay } from '../../api/client'
import { unbroken, weighed } from '../../lib/format'
import { useKeys } from '../../lib/keys'
import { Button } from '../../ui/Button'
import { BIG } from './looks'
import type { Say } from './say'

interface OverProps {
  view: BatchView
  line: BatchLine
  onSay: Say
  onUndo: () => void
}

interface Way {
  word: string
  way: OverpourWay | null
  events: BatchEvent[]
}

/** Nobody makes a batch more often than this to save one line. */
const MOST_TIMES = 10

/** What there is to do about a line that is over. */
function waysOf(view: BatchView, line: BatchLine): Way[] {
  const leave: BatchEvent = { what: 'decided', line: line.line, way: 'leave' }
  const over = view.over
  if (!over) return [{ word: 'As it is', way: null, events: [leave] }]
  const ways: Way[] = [{ word: 'As it is', way: over.leave, events: [leave] }]
  for (const way of over.restore) {
    const added = way.additions.map((each): BatchEvent => ({
      what: 'added',
      ingredient: each.ingredient,
      grams: each.grams,
      why: `${line.name} was poured over`,
    }))
    ways.push({
      word: 'Bring it back',
      way,
      events: [...added, { what: 'decided', line: line.line, way: 'restore' }],
    })
  }
  const factor = line.in_g / line.band.mark_g
  if (over.scale && factor <= MOST_TIMES) {
    // After the least that brings it back: the three answers, and then what else would.
    ways.splice(2, 0, {
      word: 'More of the same',
      way: over.scale,
      events: [{ what: 'decided', line: line.line, way: 'scale', factor }],
    })
  }
  return ways
}

/** Past its mark: the answers are there at once, each with what it does. */
export function Over({ view, line, onSay, onUndo }: OverProps) {
  const ways = waysOf(view, line)
  const [read, setRead] = useState(0)
  useKeys('Make', [
    {
      key: ways.map((_, at) => String.fromCharCode(97 + at)),
      shown: `A to ${String.fromCharCode(64 + ways.length)}`,
      words: 'Take a way on',
      run: (event) => {
        const own = ways[event.key.toLowerCase().charCodeAt(0) - 97]
        if (own) onSay(...own.events)
      },
    },
    { key: ['backspace', 'pageup'], shown: 'Backspace', words: 'One back', run: onUndo },
  ])
  return (
    <section aria-label="Past its mark" className="flex min-w-0 flex-col gap-3">
      <p className="text-title text-ink2">{unbroken(line.name)}</p>
      <h1 role="alert" className="text-[52px] leading-[1.05] text-hot max-phone:text-[34px]">
        {weighed(-line.still_g)} g over
      </h1>
      <p className="text-head">
        <b>{weighed(line.in_g)} g</b> in, target <b>{weighed(line.band.mark_g)} g</b>; {line.may}.
      </p>
      <ul className="flex flex-col gap-2">
        {ways.map((own, at) => (
          <li
            key={own.way?.title ?? own.word}
            className={`flex flex-wrap items-center gap-3 rounded-xl border-2 px-3 py-1.5 ${at === read ? 'border-rim' : 'border-line2'}`}
            onPointerEnter={() => setRead(at)}
          >
            <span className="min-w-[220px] flex-1">
              <span className="text-note text-ink2">{own.word}</span>
              <b className="block text-head leading-tight first-letter:uppercase">
                {unbroken(own.way?.title ?? 'leave it')}
              </b>
              {own.way && (
                <span className="block text-lead">
                  {own.way.headline}; <span className="text-ink2">{own.way.differs}.</span>
                </span>
              )}
              {own.way && own.way.additions.length > 1 && (
                <span className="block text-lead">
                  {own.way.additions
                    .map((each) => `${weighed(each.grams)} g ${unbroken(each.name)}`)
                    .join(', ')}
                </span>
              )}
            </span>
            <Button
              className={BIG}
              look={
                own.way?.inside && !ways.slice(0, at).some((each) => each.way?.inside) ? 'primary' : 'plain'
              }
              hotkey={String.fromCharCode(65 + at)}
              onClick={() => onSay(...own.events)}
            >
              {own.word === 'Bring it back'
                ? 'It is in'
                : own.word === 'As it is'
                  ? 'Leave it'
                  : 'Scale the rest'}
            </Button>
          </li>
        ))}
      </ul>
      <p>
        <Button className={BIG} look="quiet" hotkey="Backspace" onClick={onUndo}>
          Take the last weight back
        </Button>
      </p>
    </section>
  )
}
