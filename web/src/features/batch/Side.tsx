import { useState } from 'react'
import { useKeys } from '../../lib/keys'
import { TestSheet } from '../tests/TestSheet'
import { left, useNow } from './clocks'
import { useRing } from './useRing'
import type { Rings } from './useRing'
import { useBell } from './useBell'
import { useWarmth } from './useWarmth'
import { Warmth } from './Warmth'
import type { BatchArrival, BatchView } from '../../api/client'
import { unbroken, weighed } from '../../lib/format'
import { Button } from '../../ui/Button'
import type { Say } from './say'

interface SideProps {
  id: string
  view: BatchView
  onSay: Say
}

/** Beside what is done: how warm it is, the clocks that run, and what comes then. */
export function Side({ id, view, onSay }: SideProps) {
  const warmth = useWarmth(id, view)
  return (
    <aside aria-label="Beside it" className="flex min-w-0 flex-col gap-4">
      <Warmth view={view} warmth={warmth} onSay={onSay} />
      <Clocks view={view} arrival={warmth.arrival} onSay={onSay} />
      <TestIt view={view} c={warmth.probe?.c ?? view.reads.at(-1)?.c ?? null} onSay={onSay} />
      <Then view={view} />
      <div className="mt-auto">
        <p className="text-note text-ink2">with what is in</p>
        <p className={`text-title font-[640] ${view.inside ? '' : 'text-hot'}`}>{view.sentence}</p>
      </div>
    </aside>
  )
}

/** A test of what is in the bowl, and what the last one said. */
function TestIt({ view, c, onSay }: { view: BatchView; c: number | null; onSay: SideProps['onSay'] }) {
  const [open, setOpen] = useState(false)
  const last = view.tests.at(-1)
  useKeys('Make', [{ key: 'b', shown: 'B', words: 'Test it', run: () => setOpen(true) }])
  return (
    <div>
      <Button className="min-h-12" hotkey="B" onClick={() => setOpen(true)}>
        Test it
      </Button>
      {last && <p className="mt-1 text-note text-ink2">{last.sentence}</p>}
      {open && (
        <TestSheet
          formula={view.contents}
          c={c}
          history={view.history}
          done={view.tests}
          onTested={(test, at, history) => onSay({ what: 'tested', test, c: at, history })}
          onClose={() => setOpen(false)}
        />
      )}
    </div>
  )
}

interface ClocksProps {
  view: BatchView
  arrival: BatchArrival | null
  onSay: SideProps['onSay']
}

/** What runs: the clocks that were set, and the one of the temperature. */
function Clocks({ view, arrival, onSay }: ClocksProps) {
  const { timers } = view
  const now = useNow(timers.length > 0 || arrival !== null)
  const step = view.step == null ? undefined : view.steps[view.step]?.key
  const { comes, bell, heard } = useBell(step, arrival, now)
  const ringing: Rings[] = bell ? [bell, ...timers] : timers
  useRing(ringing, now)
  return (
    <ul aria-label="Clocks">
      {comes && !bell && (
        <li className="flex items-center gap-3 border-b border-line2 py-2">
          <span className="min-w-0 flex-1 text-lead">{comes.to}, about</span>
          <b className="font-head text-[42px] leading-none">{left(comes.likely - now)}</b>
        </li>
      )}
      {ringing.map((own) => {
        const ms = Date.parse(own.rings) - now
        const rings = ms <= 0
        return (
          <li
            key={own.id}
            className={`flex items-center gap-3 border-b border-line2 py-2 ${rings ? 'text-hot' : ''}`}
          >
            <span className="min-w-0 flex-1 text-lead">{own.name || 'Clock'}</span>
            <b className="font-head text-[42px] leading-none">{rings ? 'now' : left(ms)}</b>
            <Button
              className="min-h-12 px-3"
              look={rings ? 'primary' : 'quiet'}
              aria-label={`${rings ? 'Heard' : 'Stop'}: ${own.name || 'clock'}`}
              onClick={() => (own === bell ? heard() : onSay({ what: 'timer_off', timer: own.id }))}
            >
              {rings ? 'Heard' : 'Stop'}
            </Button>
          </li>
        )
      })}
    </ul>
  )
}

function Then({ view }: { view: BatchView }) {
  const at = view.line == null ? -1 : view.order.indexOf(view.line)
  const nextLine = view.order.slice(at + 1).find((each) => view.lines[each]?.stands === 'open')
  const line = nextLine === undefined ? undefined : view.lines[nextLine]
  const next = view.steps.findIndex((each, own) => !each.done && !each.left_out && own !== view.step)
  // A line goes in before the step it is for is done; while a line is weighed, the next step may come before the next line.
  const before = view.line == null ? next : view.steps.findIndex((each) => !each.done && !each.left_out)
  const words =
    line && (before < 0 || (line.step ?? 0) <= before)
      ? `${weighed(line.band.mark_g)} g ${unbroken(line.name)}`
      : view.steps[before]?.what
  if (!words) return null
  return (
    <div>
      <p className="text-title text-ink2">then</p>
      <p className="text-head font-[640]">{words}</p>
    </div>
  )
}
