import { useEffect, useState } from 'react'
import type { BatchEvent, BatchTimer, BatchView } from '../../api/client'
import { clock, degrees, unbroken, weighed } from '../../lib/format'
import { readTemperature } from '../../lib/number'
import { Button } from '../../ui/Button'

interface SideProps {
  view: BatchView
  onSay: (...events: BatchEvent[]) => void
}

/** The minute by the clock of this device, every second while something runs. */
function useNow(runs: boolean): number {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    if (!runs) return
    const timer = window.setInterval(() => setNow(Date.now()), 1000)
    return () => window.clearInterval(timer)
  }, [runs])
  return now
}

/** "04:40", "1:19:05". */
function left(ms: number): string {
  const all = Math.max(0, Math.ceil(ms / 1000))
  const [hours, minutes, seconds] = [Math.floor(all / 3600), Math.floor(all / 60) % 60, all % 60]
  const two = (value: number) => String(value).padStart(2, '0')
  return hours > 0 ? `${hours}:${two(minutes)}:${two(seconds)}` : `${two(minutes)}:${two(seconds)}`
}

/** Beside what is done: how warm it is, the clocks that run, and what comes then. */
export function Side({ view, onSay }: SideProps) {
  return (
    <aside aria-label="Beside it" className="flex min-w-0 flex-col gap-4">
      <Warmth view={view} onSay={onSay} />
      <Clocks timers={view.timers} onSay={onSay} />
      <Then view={view} />
      <div className="mt-auto">
        <p className="text-note text-ink2">with what is in</p>
        <p className={`text-title font-[640] ${view.inside ? '' : 'text-hot'}`}>{view.sentence}</p>
      </div>
    </aside>
  )
}

function Warmth({ view, onSay }: SideProps) {
  const [typed, setTyped] = useState('')
  const [wrong, setWrong] = useState<string | null>(null)
  const last = view.reads.at(-1)
  return (
    <form
      className="border-b border-line pb-3"
      onSubmit={(event) => {
        event.preventDefault()
        const read = readTemperature(typed)
        if (read.kind === 'nothing') return
        if (read.kind === 'wrong' || read.value < -60 || read.value > 220) {
          setWrong('Write what the probe shows, from −60 to 220 °C.')
          return
        }
        setTyped('')
        setWrong(null)
        onSay({ what: 'read', c: read.value, by: 'hand' })
      }}
    >
      <p className="text-title text-ink2">
        {last ? `it was, at ${clock(new Date(last.at)).time}` : 'no temperature read yet'}
      </p>
      {last && <p className="font-head text-[60px] leading-none font-[720]">{degrees(last.c)}</p>}
      <label className="mt-2 flex items-center gap-2 text-lead">
        now
        <input
          inputMode="decimal"
          autoComplete="off"
          className={`h-12 w-24 rounded-xl border-2 bg-enamel px-2 text-right text-title font-[640] ${wrong ? 'border-hot' : 'border-line2'}`}
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value)
            setWrong(null)
          }}
        />
        °C
        <Button className="min-h-12" type="submit">
          Read
        </Button>
      </label>
      {wrong && (
        <p role="alert" className="text-hot">
          {wrong}
        </p>
      )}
    </form>
  )
}

function Clocks({ timers, onSay }: { timers: BatchTimer[]; onSay: SideProps['onSay'] }) {
  const now = useNow(timers.length > 0)
  return (
    <ul aria-label="Clocks">
      {timers.map((timer) => {
        const ms = Date.parse(timer.rings) - now
        const rings = ms <= 0
        return (
          <li
            key={timer.id}
            className={`flex items-center gap-3 border-b border-line2 py-2 ${rings ? 'text-hot' : ''}`}
          >
            <span className="min-w-0 flex-1 text-lead">{timer.name || 'Clock'}</span>
            <b className="font-head text-[42px] leading-none">{rings ? 'now' : left(ms)}</b>
            <Button
              className="min-h-12 px-3"
              look={rings ? 'primary' : 'quiet'}
              aria-label={`${rings ? 'Heard' : 'Stop'}: ${timer.name || 'clock'}`}
              onClick={() => onSay({ what: 'timer_off', timer: timer.id })}
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
  const nextLine =
    at >= 0 ? view.order.slice(at + 1).find((each) => view.lines[each]?.stands === 'open') : undefined
  const line = nextLine === undefined ? undefined : view.lines[nextLine]
  const step = view.steps.find((each, own) => !each.done && !each.left_out && own !== view.step)
  const words =
    line && (line.step == null || step == null || view.line != null)
      ? `${weighed(line.band.mark_g)} g ${unbroken(line.name)}`
      : step?.what
  if (!words) return null
  return (
    <div>
      <p className="text-title text-ink2">then</p>
      <p className="text-head font-[640]">{words}</p>
    </div>
  )
}
