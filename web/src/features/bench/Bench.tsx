import { lazy, Suspense, useCallback, useEffect, useMemo, useState } from 'react'
import type { FormulaDocument } from '../../api/client'
import { DraftNotice } from '../../desk/DraftNotice'
import { useHistory } from '../../desk/history'
import { SavePanel } from '../../desk/SavePanel'
import { useDeskKeys } from '../../desk/useDeskKeys'
import { useSaving } from '../../desk/useSaving'
import type { Opened } from '../../desk/useSaving'
import { useFamily } from '../../lib/families'
import { useIngredients } from '../../lib/ingredients'
import { useKitchen } from '../kitchen/queries'
import { rememberOpened, useComponents } from '../library/queries'
import { madeEntries } from '../../lib/madeHere'
import { MakingTools } from '../making/MakingTools'
import { useInWork } from '../rescue/desk'
import { Balance } from './Balance'
import { fromWire, toWire, withWay } from './document'
import { Figures } from './Figures'
import { FormulaTable } from './FormulaTable'
import { JobPanel } from './JobPanel'
import { pointAt } from './point'
import { OnTheBench } from './inHand'
import { MadeFirst } from './MadeFirst'
import { LearnedLine } from './LearnedLine'
import { FORMULA, useByTheBook, usePrediction, useWays } from './queries'
import { countRules } from './rules'
import { Title } from './Title'
import { LETTERS, useSlow, useTrying } from './useTrying'
import { useBrought } from './useBrought'
import { Verdict } from './Verdict'
import { Ways } from './Ways'
import { WindowMap } from './WindowMap'
import { useTitle } from '../../lib/hooks'

/** Fetched when it is first needed. */
const RulesSheet = lazy(async () => ({ default: (await import('./RulesSheet')).RulesSheet }))
const TestHere = lazy(async () => ({ default: (await import('../tests/TestHere')).TestHere }))
const Reaches = lazy(async () => ({ default: (await import('./Reaches')).Reaches }))

interface BenchProps {
  opened: Opened<FormulaDocument>
  /** Something new got its key. */
  onBorn: (id: string) => void
}

function sideBySide(id: string, revision: number): string {
  return `/compare?ids=${id}@${revision},${id}`
}

export function Bench({ opened, onBorn }: BenchProps) {
  const [first] = useState(() => fromWire(opened.document))
  const history = useHistory(first)
  const { document, edit } = history
  useTitle(`${document.name.trim() || 'New formula'}, Bench`)
  const kitchen = useKitchen()
  const family = useFamily(document.family)
  const room = kitchen.data?.room_temperature_c ?? document.work.room_temperature_c

  const wire = useMemo(() => toWire(document), [document])
  const asked = useMemo<FormulaDocument>(
    () => ({ ...wire, work: { ...wire.work, room_temperature_c: room } }),
    [wire, room],
  )
  const { answer, current, faults, offline } = usePrediction(asked)
  const [beside, setBeside] = useState(false)
  const book = useByTheBook(asked, beside && answer?.learned != null)
  const shownTemperature = document.work.temperature_c
  const here = answer ? pointAt(answer, shownTemperature) : undefined
  const [limiting, setLimiting] = useState(false)
  const pantry = useIngredients('', true)
  const components = useComponents()
  const library = components.data
  const entries = useMemo(
    () =>
      new Map(
        [...(pantry.data ?? []), ...madeEntries(wire, library ?? [])].map((entry) => [
          entry.ingredient,
          entry,
        ]),
      ),
    [pantry.data, wire, library],
  )
  const question = useMemo(() => JSON.stringify(asked), [asked])
  const { found: ways, waiting, wrong } = useWays(asked, current)
  const looking = useSlow(waiting)
  const trying = useTrying(question)
  const way = trying.shown === null ? undefined : ways?.ways[trying.shown]
  const letter = LETTERS[trying.shown ?? 0] ?? ''

  const saving = useSaving(FORMULA, opened, wire, asked, onBorn)
  const { thing } = saving
  useEffect(() => {
    if (thing !== null) rememberOpened(thing)
  }, [thing])
  useBrought(edit)

  const setTemperature = useCallback(
    (temperature_c: number) => edit((d) => ({ ...d, work: { ...d.work, temperature_c } }), 'temperature'),
    [edit],
  )

  const [asking, setAsking] = useState<{ at: number; question: string } | null>(null)
  const applyWay = (at: number, allowed = false) => {
    const chosen = ways?.ways[at]
    if (!chosen) return
    // What brings an allergen, an animal or alcohol goes in only after a plain yes.
    if (chosen.asks_first.length > 0 && !allowed) return setAsking({ at, question })
    setAsking(null)
    trying.tryOut(null)
    edit((d) => withWay(d, chosen.document))
  }
  const then = way && {
    letter,
    grams: new Map(
      way.changes.flatMap((change) => (change.line == null ? [] : [[change.line, change.to_g] as const])),
    ),
  }

  const nudge = (by: number) =>
    setTemperature(Math.min(family?.hottest_c ?? 45, Math.max(0, document.work.temperature_c + by)))
  const { tried } = trying
  const at = (event: KeyboardEvent, what: string) =>
    event.target instanceof Element && event.target.closest(what) !== null
  const map = (event: KeyboardEvent) => !at(event, '[role="slider"], [role="radiogroup"], [role="group"]')
  useDeskKeys('Bench', { save: saving.save, undo: history.undo, redo: history.redo }, [
    {
      key: LETTERS.map((letter) => letter.toLowerCase()),
      shown: LETTERS.join(' '),
      words: 'Try a way out, or put it back',
      run: (event) => {
        // The hand that tried it takes it with Enter: a button that had the focus must not have it too.
        if (window.document.activeElement instanceof HTMLElement) window.document.activeElement.blur()
        const way = LETTERS.findIndex((letter) => letter.toLowerCase() === event.key.toLowerCase())
        if (ways?.ways[way]) trying.tryOut(tried === way ? null : way)
      },
    },
    {
      key: 'enter',
      words: 'Take the way that is tried',
      when: (event) => tried !== null && !at(event, 'button, a, summary'),
      run: () => tried !== null && applyWay(tried),
    },
    {
      key: 'escape',
      words: 'Put a tried way back',
      when: () => tried !== null,
      run: () => trying.tryOut(null),
    },
    {
      key: '/',
      words: 'Add an ingredient',
      run: () => window.document.getElementById('add-ingredient')?.click(),
    },
    { key: 'arrowleft', words: 'Half a degree colder', when: map, run: () => nudge(-0.5) },
    { key: 'arrowright', words: 'Half a degree warmer', when: map, run: () => nudge(0.5) },
  ])

  const load = (next: FormulaDocument) => edit(() => fromWire(next))
  const use = useCallback((next: FormulaDocument) => edit((d) => withWay(d, next)), [edit])
  useInWork(asked, use)

  const kept = opened.saved
  const goesIntoOthers = thing !== null && (library ?? []).some((each) => each.made_of?.includes(thing))
  return (
    <OnTheBench value={thing}>
      <div className="tray flex flex-1 flex-col gap-2 px-6 pt-3 pb-3.5 max-phone:px-4">
        <div className="grid grid-cols-[424px_minmax(0,1fr)] gap-x-6 gap-y-2 max-narrow:grid-cols-[372px_minmax(0,1fr)] max-tablet:grid-cols-1">
          <Title
            document={document}
            edit={edit}
            notice={<DraftNotice saving={saving} onBack={kept && (() => history.load(fromWire(kept)))} />}
          />
          <Verdict
            answer={answer}
            trying={way ? { letter, at: way.at } : null}
            here={here}
            faults={faults}
            empty={document.lines.length === 0}
            offline={offline}
            document={document}
            edit={edit}
            beside={
              answer && (
                <Suspense fallback={null}>
                  <TestHere
                    formula={asked}
                    component={saving.dirty ? null : thing}
                    history={answer.history}
                  />
                </Suspense>
              )
            }
            learned={
              answer?.learned && (
                <LearnedLine
                  learned={answer.learned}
                  beside={beside}
                  onBeside={setBeside}
                  book={book && pointAt(book, shownTemperature)}
                />
              )
            }
          />
        </div>
        <Balance answer={answer} instead={way?.phases_of_total_percent} fresh={current} />
        <div className="grid flex-1 grid-cols-[424px_minmax(0,1fr)] gap-x-6 gap-y-5 max-narrow:grid-cols-[372px_minmax(0,1fr)] max-narrow:gap-x-6 max-tablet:grid-cols-1">
          <section aria-label="Formula" className="flex flex-col gap-2 max-tablet:order-2">
            <FormulaTable
              document={document}
              answer={answer}
              faults={faults}
              edit={edit}
              settle={history.settle}
              then={then ?? null}
              onLimits={() => setLimiting(true)}
            />
            <MadeFirst answer={answer} />
            <Figures answer={answer} />
            <MakingTools
              document={asked}
              entries={entries}
              answer={answer}
              ways={ways}
              current={current}
              onUse={use}
            />
            <SavePanel
              keeping={FORMULA}
              saving={saving}
              steps={history}
              name={document.name}
              take="Put on the Bench"
              compare={sideBySide}
              inHand={(kept) => kept}
              onLoad={load}
            />
            {thing !== null && goesIntoOthers && saving.dirty && (
              <Suspense>
                <Reaches id={thing} document={wire} />
              </Suspense>
            )}
          </section>
          <section aria-label="Window map" className="flex min-w-0 flex-col gap-3 max-tablet:order-1">
            <WindowMap
              answer={answer}
              here={way?.at ?? here}
              way={
                way
                  ? { words: `with ${letter}`, onMap: way.on_map }
                  : book
                    ? { words: 'by the book', onMap: book.sweep.map((own) => own.on_map.value) }
                    : null
              }
              temperature={way?.at.temperature_c ?? document.work.temperature_c}
              room={room}
              stale={faults.length > 0}
              onTemperature={setTemperature}
            />
            {answer && (
              <Ways
                answer={answer}
                found={ways}
                looking={looking}
                wrong={wrong}
                temperature={document.work.temperature_c}
                tried={trying.tried}
                shown={trying.shown}
                onPoint={trying.point}
                onTry={trying.tryOut}
                onUse={(at) => applyWay(at)}
                asking={asking?.question === question ? asking.at : null}
                onAllowed={(at) => applyWay(at, true)}
                onRefused={() => setAsking(null)}
                onNearest={() => {
                  const nearest = ways?.nearest
                  if (nearest) edit((d) => withWay(d, nearest.document))
                }}
                onLimits={() => setLimiting(true)}
                rules={countRules(document)}
              />
            )}
            <JobPanel document={document} answer={answer} faults={faults} edit={edit} />
          </section>
        </div>
        {limiting && (
          <Suspense fallback={null}>
            <RulesSheet
              document={document}
              entries={entries}
              edit={edit}
              onClose={() => setLimiting(false)}
            />
          </Suspense>
        )}
      </div>
    </OnTheBench>
  )
}
