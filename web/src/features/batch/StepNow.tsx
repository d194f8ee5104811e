import { useState } from 'react'
import type { BatchEvent, BatchView, ViewBatchStep } from '../../api/client'
import { unbroken } from '../../lib/format'
import { useKeys } from '../../lib/keys'
import { Button } from '../../ui/Button'
import { TextField } from '../../ui/TextField'
import { BIG } from './looks'
import { Cooling } from './Cooling'
import { useDevice } from './devices'
import type { Say } from './say'
import { SpoonLook } from './SpoonLook'
import { askToNotify } from './useRing'

interface StepNowProps {
  view: BatchView
  step: ViewBatchStep
  at: number
  onSay: Say
  onUndo: () => void
}

/** A step of the method: what to do, the sign to look for, what can hurt. */
export function StepNow({ view, step, at, onSay, onUndo }: StepNowProps) {
  const [why, setWhy] = useState('')
  const [leaving, setLeaving] = useState(false)
  const { device: probe } = useDevice('probe')
  // What the probe shows when a step that wants a temperature is done belongs to it.
  const read: BatchEvent[] =
    step.temperature_c && probe?.state === 'live' && probe.c != null
      ? [{ what: 'read', c: probe.c, by: 'device' }]
      : []
  const done = () => onSay(...read, { what: 'done', step: step.key })
  useKeys('Make', [
    { key: [' ', 'enter', 'pagedown'], shown: 'Space', words: 'Step done', run: done },
    { key: ['backspace', 'pageup'], shown: 'Backspace', words: 'One back', run: onUndo },
  ])
  const clock = Math.max(1, Math.round(step.minutes[0] ?? 1))
  return (
    <section aria-label="To do" className="flex min-w-0 flex-col">
      <p className="text-title text-ink2">
        Step {at + 1} of {view.steps.length}, {step.time}
        {step.temperature_c && `, ${step.temperature_c[0]} to ${step.temperature_c[1]} °C`}
      </p>
      <h1 className="text-[52px] leading-[1.08] max-tablet:text-[42px] max-phone:text-[30px]">
        {unbroken(step.what)}
      </h1>
      {step.until && (
        <p className="mt-4 text-head">
          <span className="text-ink2">until </span>
          {step.until}
        </p>
      )}
      {step.look && <SpoonLook look={step.look} />}
      {(step.cautions ?? []).map((words) => (
        <p key={words} className="mt-3 rounded-xl border-[3px] border-hot p-3 text-title text-hot">
          {words}
        </p>
      ))}
      {view.cooling && <Cooling cooling={view.cooling} />}
      {(step.wrong ?? []).length > 0 && (
        <ul className="mt-3 text-lead text-ink2">
          {(step.wrong ?? []).map(({ seen, why: cause }) => (
            <li key={seen}>
              <b className="text-ink">{seen}</b>: {cause}
            </li>
          ))}
        </ul>
      )}
      <div className="mt-auto flex flex-wrap gap-3 pt-5">
        <Button className={`${BIG} flex-1`} look="primary" hotkey="Space" onClick={done}>
          Done
        </Button>
        {!step.begun && (
          <Button className={BIG} onClick={() => onSay({ what: 'begun', step: step.key })}>
            Begun
          </Button>
        )}
        {step.kind !== 'hands' && (
          <Button
            className={BIG}
            onClick={() => {
              askToNotify()
              onSay({ what: 'timer_set', name: step.what.slice(0, 80), min: clock })
            }}
          >
            Clock for {clock} min
          </Button>
        )}
        <Button className={BIG} look="quiet" onClick={() => setLeaving(true)}>
          Leave it out
        </Button>
      </div>
      {leaving && (
        <div className="mt-3 flex flex-wrap items-end gap-3 rounded-xl border-[3px] border-hot p-4">
          <TextField label="Left out on purpose, because" value={why} onChange={setWhy} maxLength={400} />
          <Button
            className={BIG}
            onClick={() => {
              setLeaving(false)
              onSay({ what: 'step_left_out', step: step.key, why })
            }}
          >
            Leave it out
          </Button>
          <Button className={BIG} look="quiet" onClick={() => setLeaving(false)}>
            No
          </Button>
        </div>
      )}
    </section>
  )
}
