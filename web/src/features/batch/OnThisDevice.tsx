import type { BatchEvent, BatchView } from '../../api/client'
import { weighed } from '../../lib/format'
import { Button } from '../../ui/Button'
import type { OnDevice } from './outbox'

interface OnThisDeviceProps {
  waiting: OnDevice[]
  silent: boolean
  view: BatchView
  onForget: (id: string) => void
}

function words(event: BatchEvent, view: BatchView): string {
  switch (event.what) {
    case 'weighed':
      return `${weighed(event.grams)} g of ${view.lines[event.line]?.name ?? 'a line'}`
    case 'done':
      return `done: ${view.steps.find((step) => step.key === event.step)?.what ?? event.step}`
    case 'read':
      return `${event.c} °C`
    case 'corrected':
      return `corrected to ${event.to}`
    case 'taken_back':
      return 'something taken back'
    default:
      return event.what.replaceAll('_', ' ')
  }
}

/** What is not in the kitchen's file yet, and what the kitchen did not take. */
export function OnThisDevice({ waiting, silent, view, onForget }: OnThisDeviceProps) {
  const refused = waiting.filter((own) => own.refused !== undefined)
  const open = waiting.filter((own) => own.refused === undefined)
  return (
    <>
      {silent && open.length > 0 && (
        <p role="status" className="rounded-xl border-2 border-dashed border-hot px-3 py-2 text-lead">
          <b>On this device, sent when the kitchen answers:</b>{' '}
          {open.map((own) => words(own.event.event, view)).join('; ')}.
        </p>
      )}
      {refused.map((own) => (
        <p
          key={own.event.id}
          role="alert"
          className="flex flex-wrap items-center gap-3 rounded-xl border-2 border-hot px-3 py-2 text-lead"
        >
          <span className="min-w-0 flex-1">
            <b>Not kept: {words(own.event.event, view)}.</b> {own.refused}
          </span>
          <Button onClick={() => onForget(own.event.id)}>Let it go</Button>
        </p>
      ))}
    </>
  )
}
