import type { DayView, ViewStep } from '../../api/client'
import { Button } from '../../ui/Button'
import { Select } from '../../ui/Select'
import { takenOut } from './time'
import type { Stage, Wall } from './time'

interface NextProps {
  view: DayView
  wall: Wall
  now: number
  steps: ViewStep[]
  stage: (step: ViewStep) => Stage
  cook: number | null
  onCook: (cook: number | null) => void
  onSelect: (step: number) => void
  onSay: (step: ViewStep, said: 'begun' | 'done' | 'taken_back') => void
  /** Done steps, the last first, to be taken back. */
  done: ViewStep[]
}

/** What to do next, in order, with what comes out of the cold for it. */
export function Next(props: NextProps) {
  const { view, wall, now, steps, stage, cook, onCook, onSelect, onSay, done } = props
  const last = done[0]
  return (
    <section aria-label="Next for your hands" className="min-w-0">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 className="text-title">
          Next for {cook === null ? 'all hands' : (view.cooks[cook]?.name ?? 'your hands')}
        </h2>
        {view.cooks.length > 1 && (
          <Select
            label="Whose hands"
            inline
            tight
            className="w-32"
            value={cook === null ? 'all' : String(cook)}
            onChange={(value) => onCook(value === 'all' ? null : Number(value))}
            options={[['all', 'Everybody'], ...view.cooks.map((own, at) => [String(at), own.name] as const)]}
          />
        )}
      </div>
      <ol className="mt-1 border-t border-line">
        {steps.slice(0, 6).map((step) => {
          const begins = step.begins ?? 0
          const begun = stage(step) === 'begun'
          const due = !begun && begins <= now
          const out = takenOut(view, step)
          return (
            <li key={step.step} className="flex items-start gap-3 border-b border-line py-1.5">
              <b className={`w-[92px] shrink-0 font-head text-lead ${due ? 'text-hot' : ''}`}>
                {begun
                  ? 'at it'
                  : due
                    ? `due ${wall.time(begins)}`
                    : begins - now < 12 * 60
                      ? wall.time(begins)
                      : wall.dayTime(begins)}
              </b>
              <button
                type="button"
                className="min-h-9 min-w-0 flex-1 rounded-lg text-left hover:bg-rim-tint pointer-coarse:min-h-11"
                onClick={() => onSelect(step.step)}
              >
                <b>{step.letters}</b> {step.short}
                <span className="block text-note text-ink2">
                  {step.of}
                  {cook === null &&
                    step.cook != null &&
                    view.cooks.length > 1 &&
                    `, ${view.cooks[step.cook]?.name ?? ''}`}
                  {out.length > 0 && `; ${out.join(', ')}`}
                </span>
              </button>
              <Button
                className="shrink-0 px-3"
                look="plain"
                aria-label={`${begun ? 'Done' : 'Start'}: ${step.short}, ${step.of}`}
                onClick={() => onSay(step, begun ? 'done' : 'begun')}
              >
                {begun ? 'Done' : 'Start'}
              </Button>
            </li>
          )
        })}
        {steps.length === 0 && (
          <li className="border-b border-line py-2 text-ink2">Nothing more to do by hand.</li>
        )}
      </ol>
      {last && (
        <p className="mt-1 flex flex-wrap items-center gap-2 text-note text-ink2">
          Done last: {last.short}, {last.of}.
          <Button look="quiet" className="px-2" onClick={() => onSay(last, 'taken_back')}>
            Not done yet
          </Button>
        </p>
      )}
    </section>
  )
}
