import { useCallback, useMemo, useState } from 'react'
import { Link } from 'react-router'
import { faultWords } from '../../api/ask'
import { ProblemError } from '../../api/client'
import type {
  DayView,
  KeptReport,
  OrderSummary,
  PlanDocument,
  Quicker,
  Report,
  ViewStep,
} from '../../api/client'
import { VersionsSheet } from '../../desk/VersionsSheet'
import { answer, api } from '../../api/client'
import { useKeys } from '../../lib/keys'
import { useMedia } from '../../lib/hooks'
import { Button } from '../../ui/Button'
import { DayList } from './DayList'
import { DayPrint } from './DayPrint'
import type { PrintKind } from './DayPrint'
import { HappenedSheet } from './HappenedSheet'
import { Next } from './Next'
import { Odds } from './Odds'
import { PrintSheet } from './PrintSheet'
import { offerOfBent, offerOfTaken, Proposal } from './Proposal'
import type { Offer } from './Proposal'
import { bend, bendAsk, keepPlan, PLAN, report, take, THE_PLAN, useSheets } from './queries'
import type { Happening } from './queries'
import { Strip } from './Strip'
import { TakeSheet } from './TakeSheet'
import { Tape } from './Tape'
import { dayOf, nowIn, stages, toDo, useNow, wallOf } from './time'
import type { Stage } from './time'
import { Why } from './Why'

interface PlanDeskProps {
  plan: PlanDocument
  view: DayView
  revision: number
  reports: KeptReport[]
  /** Keys of steps nothing was said of that must be done. */
  supposed: string[]
  /** The kitchen is another than the plan was made for. */
  otherRoom: boolean
  orders: OrderSummary[]
  /** A plan that was looked for and is not used yet. */
  offered: Offer | null
  onAnswered: () => void
  onAgain: () => void
}

/** The plan that stands, or the one that would: the day in lanes, what comes next, why, and what gives. */
export function PlanDesk(props: PlanDeskProps) {
  const { plan, revision, reports, supposed, otherRoom, orders, offered, onAnswered, onAgain } = props
  const [own, setOwn] = useState<Offer | null>(null)
  const offer = own ?? offered
  const view = offer?.view ?? props.view
  const now = useNow(view.begins_at)
  const wall = useMemo(() => wallOf(view), [view])
  const [day, setDay] = useState<number | null>(null)
  const shownDay = Math.min(day ?? dayOf(view, now), Math.max(0, view.days.length - 1))
  const [selected, setSelected] = useState<number | null>(null)
  const [cook, setCook] = useState<number | null>(null)
  const [sheet, setSheet] = useState<'happened' | 'take' | 'versions' | 'print' | null>(null)
  const [print, setPrint] = useState<PrintKind>('sheets')
  const [busy, setBusy] = useState<string | null>(null)
  const [wrong, setWrong] = useState<string | null>(null)
  const narrow = useMedia('(max-width: 760px)')
  const said = useMemo(() => stages(reports, supposed), [reports, supposed])
  const stage = useCallback((step: ViewStep): Stage => said.get(step.key)?.stage ?? 'to_come', [said])
  const steps = toDo(view, stage, cook)
  const done = view.steps
    .filter((step) => step.hands && stage(step) === 'done')
    .sort((a, b) => (b.begins ?? 0) - (a.begins ?? 0))
  const next = steps[0]
  const chosen = view.steps.find((step) => step.step === selected) ?? next
  const events = useMemo(() => reports.map((each) => each.event as Report), [reports])
  const sheets = useSheets(offer?.plan ?? plan)
  const standing = offer === null

  const attempt = async (words: string, work: () => Promise<void>) => {
    setBusy(words)
    setWrong(null)
    try {
      await work()
    } catch (error) {
      const conflict = error instanceof ProblemError && error.problem.status === 409
      setWrong(
        conflict
          ? 'Somebody changed the plan meanwhile: look at it as it stands now, then do it again.'
          : (faultWords(error) ?? 'It could not be done; try again.'),
      )
      if (conflict) setOwn(null)
    } finally {
      setBusy(null)
    }
  }
  const ask = (happening: Happening) =>
    attempt('asking', async () => {
      const asked = bendAsk(plan, events, wall.local(Math.max(0, now)), happening)
      const bent = await bend(asked)
      setSheet(null)
      const offer = offerOfBent(bent)
      setOwn({ ...offer, happening, ...(offer.good ? {} : { saved: { bend: asked, level: bent.level } }) })
    })
  // On top of what happened, or alone.
  const shorten = (quicker: Quicker) => {
    const before = own?.happening
    void ask(
      before
        ? { ...before, also: [...(before.also ?? []), quicker] }
        : { happened: { what: 'quicker', quicker } },
    )
  }
  const say = (step: ViewStep, word: Report['said']) =>
    attempt('saying', async () => {
      const who = cook ?? step.cook
      const name = who == null ? undefined : view.cooks[who]?.name
      const at = new Date().toISOString()
      await report({ step: step.key, said: word, at, ...(name ? { cook: name } : {}) })
    })
  const use = () =>
    attempt('keeping', async () => {
      if (!offer?.plan) return
      await keepPlan(offer.plan, revision)
      setOwn(null)
      onAnswered()
    })
  const leave = () => {
    setOwn(null)
    onAnswered()
  }
  const pin = (step: number, pinned: boolean) =>
    attempt('keeping', async () => {
      const all = new Set(plan.pinned ?? [])
      if (pinned) all.add(step)
      else all.delete(step)
      await keepPlan({ ...plan, pinned: [...all].sort((a, b) => a - b) }, revision)
    })
  const printed = (kind: PrintKind) => {
    setSheet(null)
    setPrint(kind)
    // After the page to print is drawn.
    window.setTimeout(() => window.print(), 120)
  }
  const byDays = (by: number) => setDay(Math.min(Math.max(0, shownDay + by), view.days.length - 1))
  useKeys('Day', [
    {
      key: 'enter',
      words: 'Start or finish what comes next',
      run: () => next && standing && void say(next, stage(next) === 'begun' ? 'done' : 'begun'),
      when: (event) =>
        !(event.target instanceof HTMLButtonElement || event.target instanceof HTMLAnchorElement),
    },
    {
      key: ['arrowleft', 'arrowright'],
      words: 'The day before, the day after',
      run: (event) => byDays(event.key === 'ArrowLeft' ? -1 : 1),
    },
    { key: 'p', words: 'Print the run sheets', run: () => printed('sheets') },
    { key: 'l', words: 'Something happened', run: () => standing && setSheet('happened') },
  ])

  const stale = plan.orders.filter((mine) => {
    const kept = orders.find((order) => order.id === mine.key)
    return kept && mine.revision != null && kept.revision !== mine.revision
  })
  const away = plan.orders.filter(
    (mine) => mine.key != null && !orders.some((order) => order.id === mine.key && !order.archived),
  )
  const here = nowIn(view.zone)
  const more = orders.filter(
    (order) =>
      !order.archived &&
      order.served_at &&
      order.served_at > here &&
      !plan.orders.some((mine) => mine.key === order.id),
  )
  const moved = useMemo(() => new Set((offer?.moved ?? []).map((each) => each.step)), [offer])
  return (
    <div className="tray flex flex-1 flex-col gap-3 px-6 pt-3 pb-4 max-phone:px-4">
      <div className="flex flex-wrap items-start justify-between gap-3">
        <h1 className="min-w-0 flex-1 basis-80 text-display leading-tight">{view.sentence}</h1>
        <div className="flex flex-wrap gap-2">
          <Button onClick={() => setSheet('happened')} disabled={!standing} hotkey="L">
            Something happened
          </Button>
          {next && standing && (
            <Button
              look="primary"
              hotkey="Enter"
              disabled={busy === 'saying'}
              onClick={() => void say(next, stage(next) === 'begun' ? 'done' : 'begun')}
            >
              {stage(next) === 'begun' ? 'Done: ' : 'Start: '}
              {next.short}
            </Button>
          )}
        </div>
      </div>
      {wrong && (
        <p role="alert" className="sticky top-0 z-10 border-[3px] border-hot bg-enamel px-3 py-1.5 text-hot">
          {wrong}
        </p>
      )}
      {view.incomplete.length > 0 && (
        <section role="alert" aria-label="Not in the plan" className="border-[3px] border-hot px-3 py-1.5">
          <b className="text-hot">Not everything is in this plan</b>
          <ul>
            {view.incomplete.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </section>
      )}
      {offer && (
        <Proposal
          offer={offer}
          plan={plan}
          onQuicker={own?.happening ? shorten : null}
          over={revision > 0}
          keeping={busy === 'keeping'}
          onUse={() => void use()}
          onLeave={leave}
        />
      )}
      {standing && view.exceeds.length > 0 && (
        <ul aria-label="Past a limit" className="text-note text-hot">
          {view.exceeds.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      )}
      {standing && (stale.length > 0 || more.length > 0 || away.length > 0 || otherRoom) && (
        <p className="text-note">
          {otherRoom && 'The kitchen was changed since it was planned. '}
          {stale.length > 0 && `Changed since it was planned: ${stale.map((mine) => mine.name).join(', ')}. `}
          {away.length > 0 && `Put away since: ${away.map((mine) => mine.name).join(', ')}. `}
          {more.length > 0 && `Not in this plan: ${more.map((order) => order.name).join(', ')}. `}
          <button type="button" className="min-h-9 font-[640] text-rim underline" onClick={onAgain}>
            Plan again
          </button>
        </p>
      )}
      <nav aria-label="Days" className="flex flex-wrap items-center gap-1">
        {view.days.map((each, at) => (
          <button
            key={each.date}
            type="button"
            aria-current={at === shownDay ? 'date' : undefined}
            className="min-h-9 rounded-lg border-2 border-transparent px-3 font-head text-lead font-[640] hover:bg-rim-tint aria-[current]:border-rim aria-[current]:bg-rim-tint pointer-coarse:min-h-11"
            onClick={() => setDay(at)}
          >
            {wall.date(each.strip[0] ?? 0)}
          </button>
        ))}
        <span className="ml-auto flex flex-wrap items-center gap-1 text-note">
          <Button look="quiet" className="px-2" onClick={() => setSheet('take')} disabled={!standing}>
            One order more?
          </Button>
          <Button look="quiet" className="px-2" onClick={onAgain} disabled={!standing}>
            Plan again
          </Button>
          <Button look="quiet" className="px-2" onClick={() => setSheet('print')}>
            Print
          </Button>
          {revision > 0 && (
            <>
              <Button look="quiet" className="px-2" onClick={() => setSheet('versions')}>
                Version {revision}
              </Button>
            </>
          )}
          <Link
            className="inline-flex min-h-9 items-center rounded-lg px-2 font-[640] text-ink2 hover:bg-rim-tint pointer-coarse:min-h-11"
            to="/day/room"
          >
            The kitchen
          </Link>
        </span>
      </nav>
      {narrow ? (
        <DayList
          view={view}
          wall={wall}
          day={shownDay}
          now={now}
          cook={cook}
          selected={chosen?.step ?? null}
          onSelect={setSelected}
          stage={stage}
        />
      ) : (
        <Strip
          view={view}
          day={shownDay}
          now={now}
          selected={selected}
          onSelect={setSelected}
          stage={stage}
          onDrag={standing ? (step, to) => void ask({ happened: { what: 'moved', step, to } }) : null}
          moved={moved}
        />
      )}
      {view.cautions.length > 0 && (
        <section aria-label="To mind" className="border-l-4 border-hot pl-3 text-note">
          <b>To mind</b>
          <ul>
            {view.cautions.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </section>
      )}
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.35fr)_minmax(0,0.85fr)] gap-6 max-tablet:grid-cols-1">
        <Next
          view={view}
          wall={wall}
          now={now}
          steps={steps}
          stage={stage}
          cook={cook}
          onCook={setCook}
          onSelect={(step) => {
            setSelected(step)
            const begins = view.steps.find((own) => own.step === step)?.begins
            if (begins != null) setDay(dayOf(view, begins))
          }}
          onSay={(step, word) => void say(step, word)}
          done={done}
        />
        {chosen ? (
          <Why
            key={`${chosen.step}-${chosen.begins}`}
            view={view}
            wall={wall}
            step={chosen}
            onSelect={setSelected}
            onMove={
              standing && stage(chosen) === 'to_come'
                ? (to) => void ask({ happened: { what: 'moved', step: chosen.step, to } })
                : null
            }
            onPin={standing ? (pinned) => void pin(chosen.step, pinned) : null}
            plan={offer ? offer.plan : plan}
            onQuicker={standing ? shorten : null}
            asking={busy === 'asking'}
          />
        ) : (
          <div />
        )}
        <div className="flex min-w-0 flex-col gap-4">
          <Tape view={view} wall={wall} now={now} />
          {view.stands && <Odds plan={offer?.plan ?? plan} view={view} />}
        </div>
      </div>
      {sheet === 'happened' && (
        <HappenedSheet
          view={props.view}
          wall={wall}
          now={Math.max(0, now)}
          stage={stage}
          step={selected}
          asking={busy === 'asking'}
          wrong={wrong}
          onAsk={(happened, notBegun) => void ask({ happened, notBegun })}
          onClose={() => setSheet(null)}
        />
      )}
      {sheet === 'take' && (
        <TakeSheet
          orders={more}
          asking={busy === 'asking'}
          wrong={wrong}
          onAsk={(order) =>
            void attempt('asking', async () => {
              const taken = await take(plan, events, wall.local(Math.max(0, now)), order)
              setSheet(null)
              setOwn(offerOfTaken(taken))
            })
          }
          onClose={() => setSheet(null)}
        />
      )}
      {sheet === 'print' && (
        <PrintSheet revision={revision} onPrint={printed} onClose={() => setSheet(null)} />
      )}
      {sheet === 'versions' && (
        <VersionsSheet
          keeping={PLAN}
          id={THE_PLAN}
          newest={revision}
          take="Look at it"
          onLoad={(before) =>
            void attempt('asking', async () => {
              const seen = await answer(api.POST('/api/plan/view', { body: before }))
              setOwn({
                sentence: `An earlier plan: ${before.name}. ${seen.sentence}`,
                plan: before,
                view: seen,
                moved: [],
                good: seen.stands,
                use: 'Go back to this plan',
              })
            })
          }
          onClose={() => setSheet(null)}
        />
      )}
      <DayPrint
        kind={print}
        view={view}
        sheets={sheets.found}
        name={plan.name}
        revision={standing ? revision : 0}
      />
    </div>
  )
}
