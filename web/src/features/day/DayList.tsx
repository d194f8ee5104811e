import type { DayView, ViewStep } from '../../api/client'
import { fillOf } from './strip'
import { span } from './time'
import type { Stage, Wall } from './time'

interface DayListProps {
  view: DayView
  wall: Wall
  day: number
  now: number
  cook: number | null
  selected: number | null
  onSelect: (step: number) => void
  stage: (step: ViewStep) => Stage
}

/** The day as a list, for a narrow screen and for who reads it aloud. */
export function DayList({ view, wall, day, now, cook, selected, onSelect, stage }: DayListProps) {
  const strip = view.days[day]?.strip
  if (!strip) return null
  const [from, to] = [strip[0] ?? 0, strip[1] ?? 0]
  const steps = view.steps
    .filter((step) => step.begins != null && step.begins >= from && step.begins < to)
    .filter((step) => cook === null || step.cook === cook || !step.hands)
    .sort((a, b) => (a.begins ?? 0) - (b.begins ?? 0))
  return (
    <ol aria-label="The day as a list" className="border-t border-line">
      {steps.map((step) => {
        const begins = step.begins ?? 0
        const said = stage(step)
        return (
          <li key={step.step} className="border-b border-line">
            <button
              type="button"
              aria-pressed={selected === step.step}
              className={`flex min-h-12 w-full items-center gap-3 rounded-lg px-1 py-1 text-left aria-pressed:bg-rim-tint ${said === 'done' ? 'opacity-60' : ''}`}
              onClick={() => onSelect(step.step)}
            >
              <b className="w-14 shrink-0 font-head text-lead">{wall.time(begins)}</b>
              <span
                className={`flex h-7 min-w-7 shrink-0 items-center justify-center rounded-[5px] border-2 px-1 font-[700] ${fillOf(step.order)}`}
              >
                {step.letters}
              </span>
              <span className="min-w-0 flex-1">
                {step.short}
                <span className="block text-note text-ink2">
                  {step.of}, {span(step.lasts)}
                  {step.cook != null && view.cooks.length > 1 && `, ${view.cooks[step.cook]?.name ?? ''}`}
                  {!step.hands && `, ${step.on.join(', ')} alone`}
                </span>
              </span>
              <span className="text-note font-[640]">
                {said === 'done'
                  ? 'done'
                  : said === 'begun'
                    ? 'at it'
                    : begins <= now && step.hands
                      ? 'due'
                      : ''}
              </span>
            </button>
          </li>
        )
      })}
    </ol>
  )
}
