import { useState } from 'react'
import type { DayView, Happened, ViewStep } from '../../api/client'
import { Button } from '../../ui/Button'
import { Select } from '../../ui/Select'
import { Sheet } from '../../ui/Sheet'
import { TextNumber } from '../../ui/TextNumber'
import { Tick } from '../../ui/Tick'
import { laneWord } from './strip'
import type { Stage, Wall } from './time'

type Kind = 'late' | 'failed' | 'away' | 'less' | 'nothing'

interface HappenedSheetProps {
  view: DayView
  wall: Wall
  now: number
  stage: (step: ViewStep) => Stage
  /** The step it is about, at first. */
  step: number | null
  asking: boolean
  wrong: string | null
  onAsk: (happened: Happened, notBegun: number[]) => void
  onClose: () => void
}

const KINDS = [
  ['late', 'A step takes longer'],
  ['failed', 'A step failed'],
  ['away', 'A cook is gone'],
  ['less', 'Something is out of use'],
  ['nothing', 'We are behind'],
] as const

/** What happened, so that the plan bends to it. */
export function HappenedSheet(props: HappenedSheetProps) {
  const { view, wall, now, stage, asking, wrong, onAsk, onClose } = props
  const [kind, setKind] = useState<Kind>('late')
  const open = view.steps.filter((step) => step.begins != null && stage(step) !== 'done')
  const near = [...open].sort((a, b) => Math.abs((a.begins ?? 0) - now) - Math.abs((b.begins ?? 0) - now))[0]
  const [step, setStep] = useState(String(props.step ?? near?.step ?? 0))
  const [minutes, setMinutes] = useState('20')
  const [cook, setCook] = useState('0')
  const [resource, setResource] = useState(view.lanes[0]?.key ?? '')
  const [hours, setHours] = useState('2')
  const overdue = open.filter((own) => own.hands && (own.begins ?? 0) < now && stage(own) === 'to_come')
  const [begun, setBegun] = useState<ReadonlySet<number>>(new Set())
  const number = Number(minutes.replace(',', '.'))
  const long = Number(hours.replace(',', '.'))
  const at = Number(step)
  const to = now + Math.max(1, Math.round(60 * long))
  const happened = (): Happened => {
    if (kind === 'late') return { what: 'late', step: at, min: Math.round(number) }
    if (kind === 'failed') return { what: 'failed', step: at }
    if (kind === 'away')
      return { what: 'away', cook: Number(cook), from: wall.local(now), to: wall.local(to) }
    if (kind === 'less') return { what: 'less', resource, from: wall.local(now), to: wall.local(to), left: 0 }
    return { what: 'nothing' }
  }
  const fits =
    kind === 'late'
      ? Number.isFinite(number) && number !== 0
      : kind === 'away' || kind === 'less'
        ? long > 0
        : true
  return (
    <Sheet
      open
      onOpenChange={(shown) => !shown && onClose()}
      title="What happened?"
      lead="You see what would move before anything does."
    >
      <form
        className="flex min-h-0 flex-col gap-3 overflow-y-auto"
        onSubmit={(event) => {
          event.preventDefault()
          if (fits)
            onAsk(
              happened(),
              overdue.filter((own) => !begun.has(own.step)).map((own) => own.step),
            )
        }}
      >
        <div role="radiogroup" aria-label="What happened" className="flex flex-wrap gap-x-4">
          {KINDS.map(([key, words]) => (
            <Tick key={key} radio="happened" checked={kind === key} onChange={() => setKind(key)}>
              {words}
            </Tick>
          ))}
        </div>
        {(kind === 'late' || kind === 'failed') && (
          <Select
            label="Which step"
            value={step}
            onChange={setStep}
            options={[...open]
              .sort((a, b) => (a.begins ?? 0) - (b.begins ?? 0))
              .map(
                (own) =>
                  [String(own.step), `${wall.dayTime(own.begins ?? 0)} ${own.short} (${own.of})`] as const,
              )}
          />
        )}
        {kind === 'late' && <TextNumber label="Longer by" value={minutes} onChange={setMinutes} unit="min" />}
        {kind === 'failed' && (
          <p className="text-note text-ink2">
            A batch is made again from its beginning; at a cake the step alone. Was it out too warm for too
            long? Then it is thrown away; your food code decides.
          </p>
        )}
        {kind === 'away' && (
          <Select
            label="Who"
            value={cook}
            onChange={setCook}
            options={view.cooks.map((own, place) => [String(place), own.name] as const)}
          />
        )}
        {kind === 'less' && (
          <Select
            label="What is out of use"
            value={resource}
            onChange={setResource}
            options={view.lanes.map((lane) => [lane.key, laneWord(lane.key)] as const)}
          />
        )}
        {(kind === 'away' || kind === 'less') && (
          <TextNumber label="From now on, for" value={hours} onChange={setHours} unit="hours" />
        )}
        {overdue.length > 0 && (
          <fieldset className="rounded-lg border border-line px-3 pb-2">
            <legend className="px-1 font-[640]">These were to begin before now. Tick what was begun.</legend>
            {overdue.map((own) => (
              <Tick
                key={own.step}
                checked={begun.has(own.step)}
                onChange={(on) => {
                  const next = new Set(begun)
                  if (on) next.add(own.step)
                  else next.delete(own.step)
                  setBegun(next)
                }}
              >
                {wall.time(own.begins ?? 0)} {own.short}, {own.of}
              </Tick>
            ))}
          </fieldset>
        )}
        {wrong && (
          <p role="alert" className="text-hot">
            {wrong}
          </p>
        )}
        <div>
          <Button look="primary" type="submit" disabled={asking || !fits}>
            {asking ? 'Looking…' : 'See what gives'}
          </Button>
        </div>
      </form>
    </Sheet>
  )
}
