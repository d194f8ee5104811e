import { useCallback, useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'
import { ProblemError } from '../../api/client'
import type { BatchEvent, BatchView, FormulaDocument } from '../../api/client'
import type { Say } from './say'
import { deviceName } from '../../api/device'
import { useTitle } from '../../lib/hooks'
import { Button } from '../../ui/Button'
import { NotRead } from '../../ui/NotRead'
import { useInWork } from '../rescue/desk'
import { lastSaid, withWaiting } from './ahead'
import { Column } from './Column'
import { Finish } from './Finish'
import { Happened } from './Happened'
import { OnThisDevice } from './OnThisDevice'
import { Over } from './Over'
import { useBatch } from './queries'
import { usePour } from './usePour'
import { Side } from './Side'
import { StepNow } from './StepNow'
import { WarmFridges } from '../devices/WarmFridges'
import { useAwake } from './useAwake'
import { Weigh } from './Weigh'

/** A batch from the first gram to the last step. */
export function MakePage() {
  const { id = '' } = useParams()
  return <Batch key={id} id={id} />
}

function Batch({ id }: { id: string }) {
  const batch = useBatch(id)
  const { now, error, waiting, silent, say, forget } = batch
  const [reading, setReading] = useState(false)
  useTitle(now ? now.kept.document.name : 'Make')
  useAwake(now !== undefined && !now.view.closed)
  if (!now) {
    if (!error) return <div className="tray flex-1" aria-busy="true" />
    const none = error instanceof ProblemError && error.problem.status === 404
    return (
      <NotRead
        title={none ? 'There is no such batch' : 'The batch cannot be read'}
        error={error}
        onAgain={batch.refetch}
      >
        <Link className="inline-flex min-h-9 items-center px-3 font-[640] text-rim underline" to="/make">
          All batches
        </Link>
      </NotRead>
    )
  }
  const { kept } = now
  const open = waiting.filter((own) => own.refused === undefined).map((own) => own.event)
  const view = withWaiting(now.view, open)
  const undo = () => {
    const last = lastSaid(now.view, open, deviceName())
    if (last !== undefined) say({ what: 'taken_back', of: last })
    return last
  }
  return (
    <div className="tray flex flex-1 flex-col gap-3 px-6 pt-4 pb-3 max-phone:px-4">
      <header className="flex flex-wrap items-baseline gap-x-4 text-lead">
        <b className="font-head">{kept.document.name}</b>
        <span className="text-ink2">
          {Math.round(view.whole_g)} g{view.factor !== 1 && `, made ${view.factor.toFixed(2)} times`}
          {(kept.document.made_for ?? []).length > 0 &&
            `, for ${forWhom((kept.document.made_for ?? []).map((own) => own.name))}`}
        </span>
        <span className="ml-auto flex gap-2">
          <Button look="quiet" className="px-2" onClick={() => setReading(true)}>
            What happened
          </Button>
          <Link
            className="inline-flex min-h-9 items-center rounded-lg px-2 font-[640] text-rim underline pointer-coarse:min-h-11"
            to="/make"
          >
            All batches
          </Link>
        </span>
      </header>
      {now.clocks.map((words) => (
        <p key={words} role="alert" className="text-hot">
          {words}
        </p>
      ))}
      <WarmFridges />
      <OnThisDevice waiting={waiting} silent={silent} view={view} onForget={forget} />
      <Now id={id} view={view} onSay={say} onUndo={undo} />
      {view.added.length > 0 && <p className="text-lead">Besides: {view.added.join(', ')}.</p>}
      <Course view={view} />
      {reading && <Happened view={view} onSay={say} onClose={() => setReading(false)} />}
    </div>
  )
}

interface NowProps {
  id: string
  view: BatchView
  onSay: Say
  onUndo: () => string | undefined
}

/** The first of those it is made for, and how many more. */
function forWhom(names: readonly string[]): string {
  const more = names.length - 2
  return names.slice(0, 2).join(' and ') + (more > 0 ? ` and ${more} more` : '')
}

/** What is to be done now. */
function Now({ id, view, onSay, onUndo: undo }: NowProps) {
  const pour = usePour(id, view)
  const onUndo = () => pour.back(undo())
  useInWork(view.contents, useMending(view, onSay))
  const line = view.line == null ? undefined : view.lines[view.line]
  const step = view.step == null ? undefined : view.steps[view.step]
  const column = line && line.band.mark_g > 0
  return (
    <div
      className={`grid flex-1 gap-x-8 gap-y-4 max-tablet:grid-cols-1 ${
        column
          ? 'grid-cols-[minmax(0,1fr)_240px_326px] max-narrow:grid-cols-[minmax(0,1fr)_170px_240px]'
          : 'grid-cols-[minmax(0,1fr)_326px] max-narrow:grid-cols-[minmax(0,1fr)_240px]'
      }`}
    >
      {line?.stands === 'over' ? (
        <Over key={line.line} view={view} line={line} onSay={onSay} onUndo={onUndo} />
      ) : line ? (
        <Weigh key={line.line} view={view} line={line} pour={pour} onSay={onSay} onUndo={onUndo} />
      ) : step ? (
        <StepNow key={step.key} view={view} step={step} at={view.step ?? 0} onSay={onSay} onUndo={onUndo} />
      ) : (
        <Finish id={id} view={view} pour={pour} onSay={onSay} />
      )}
      {column && (
        <div className="flex justify-center max-tablet:hidden">
          <Column
            line={line}
            onScale={line.stands !== 'over' && pour.some ? (pour.net ?? 0) : 0}
            rate={pour.scale?.rate ?? 0}
          />
        </div>
      )}
      <Side id={id} view={view} onSay={onSay} />
    </div>
  )
}

/** Grams as a document of the bowl writes them. */
function grams(amount: string): number {
  return Number(/^([0-9.]+) g$/.exec(amount)?.[1] ?? NaN)
}

/** What a rescue put into the bowl, as what happened to the batch. */
function useMending(view: BatchView, onSay: NowProps['onSay']) {
  const { contents } = view
  const before = useMemo(
    () => new Map(contents.lines.map((line) => [line.ingredient, grams(line.amount)])),
    [contents],
  )
  return useCallback(
    (mended: FormulaDocument) => {
      const events: BatchEvent[] = []
      for (const line of mended.lines) {
        const more = grams(line.amount) - (before.get(line.ingredient) ?? 0)
        if (more > 0.004) {
          events.push({
            what: 'added',
            ingredient: line.ingredient,
            grams: Math.round(more * 100) / 100,
            why: 'rescue',
          })
        }
      }
      if (events.length > 0) onSay(...events)
    },
    [before, onSay],
  )
}

/** The steps, and where the batch is among them. */
function Course({ view }: { view: BatchView }) {
  const open = view.lines.filter((line) => line.step == null)
  const weighing = view.line != null && view.lines[view.line]?.step == null
  const all = [
    ...(open.length > 0
      ? [{ key: 'weigh', words: 'Weigh', over: open.every((line) => line.stands !== 'open'), here: weighing }]
      : []),
    ...view.steps.map((step, at) => ({
      key: step.key,
      words: `${at + 1} ${step.what}`,
      over: step.done != null || step.left_out,
      here: view.step === at || (view.line != null && view.lines[view.line]?.step === at),
    })),
  ]
  return (
    <ol aria-label="Steps" className="grid auto-cols-fr grid-flow-col gap-1.5 max-tablet:hidden">
      {all.map((own) => (
        <li
          key={own.key}
          aria-current={own.here ? 'step' : undefined}
          className={`min-w-0 border-t-[6px] pt-1 text-note leading-tight ${
            own.here ? 'border-rim font-[720]' : own.over ? 'border-ink text-ink2' : 'border-line2 text-ink2'
          }`}
        >
          <span className="line-clamp-2">
            {own.words}
            {own.over && <span className="sr-only"> (done)</span>}
          </span>
        </li>
      ))}
    </ol>
  )
}
