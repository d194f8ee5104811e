import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import type { FormulaDocument } from '../../api/client'
import { OfflineError, ProblemError } from '../../api/client'
import { dropDraft, keepDraft, same } from '../../lib/draft'
import { useFamily } from '../../lib/families'
import { pastReducer, startPast } from '../../lib/history'
import type { Past, PastAction } from '../../lib/history'
import { isTyping, useSettled } from '../../lib/hooks'
import { useIngredients } from '../../lib/ingredients'
import { SavePanel } from '../../ui/SavePanel'
import type { SaveState, Versions } from '../../ui/SavePanel'
import { useKitchen } from '../kitchen/queries'
import { rememberOpened } from '../library/queries'
import { MakingTools } from '../making/MakingTools'
import { useInWork } from '../rescue/desk'
import { Balance } from './Balance'
import { fromWire, toWire, withWay } from './document'
import type { BenchDocument } from './document'
import { Figures } from './Figures'
import { FormulaTable } from './FormulaTable'
import { JobPanel } from './JobPanel'
import { pointAt } from './point'
import { createComponent, listRevisions, readRevision, saveComponent, usePrediction } from './queries'
import { countRules, RulesSheet } from './RulesSheet'
import { Title } from './Title'
import { Verdict } from './Verdict'
import { LETTERS, useTrying, useWays } from './useWays'
import { Ways } from './Ways'
import { WindowMap } from './WindowMap'

interface BenchProps {
  /** Key of the component, or "new". */
  id: string
  saved: FormulaDocument
  basedOn: number
  document: FormulaDocument
  /** When unsaved work was found again, if it was. */
  draftFrom: string | null
}

const VERSIONS: Versions<FormulaDocument> = {
  noun: 'formula',
  list: listRevisions,
  read: readRevision,
  compare: (id, revision) => `/compare?ids=${id}@${revision},${id}`,
  take: 'Put on the Bench',
}

/** Typing rests this long before a question goes out. */
const SETTLE_MS = 140
/** A run of edits to one field without such a pause is one step of undo. */
const STEP_MS = 1200

export function Bench({
  id,
  saved: savedFirst,
  basedOn: basedOnFirst,
  document: first,
  draftFrom,
}: BenchProps) {
  const [state, dispatch] = useReducer<Past<BenchDocument>, FormulaDocument, [PastAction<BenchDocument>]>(
    pastReducer,
    first,
    (wire) => startPast(fromWire(wire)),
  )
  const [saved, setSaved] = useState(savedFirst)
  const [basedOn, setBasedOn] = useState(basedOnFirst)
  const [save, setSave] = useState<SaveState>({ kind: 'idle' })
  const [restored, setRestored] = useState(draftFrom)
  const kitchen = useKitchen()
  const navigate = useNavigate()
  const client = useQueryClient()
  const document = state.present
  const family = useFamily(document.family)
  const room = kitchen.data?.room_temperature_c ?? document.work.room_temperature_c

  const wire = useMemo(() => toWire(document), [document])
  const asked = useMemo<FormulaDocument>(
    () => ({ ...wire, work: { ...wire.work, room_temperature_c: room } }),
    [wire, room],
  )
  const settled = useSettled(asked, SETTLE_MS)
  const { answer, current, faults, offline } = usePrediction(settled)
  const shownTemperature = document.work.temperature_c
  const here = answer ? pointAt(answer, shownTemperature) : undefined
  const [limiting, setLimiting] = useState(false)
  const pantry = useIngredients('', true)
  const entries = useMemo(
    () => new Map((pantry.data ?? []).map((entry) => [entry.ingredient, entry])),
    [pantry.data],
  )
  const question = useMemo(() => JSON.stringify(asked), [asked])
  const { found, looking, wrong } = useWays(settled, current)
  // Ways of a question that is no longer the one on the Bench are not shown as if they were.
  const ways = question === JSON.stringify(settled) ? found : undefined
  const trying = useTrying(question)
  const way = trying.shown === null ? undefined : ways?.ways[trying.shown]
  const letter = LETTERS[trying.shown ?? 0] ?? ''

  const edit = useCallback(
    (change: (document: BenchDocument) => BenchDocument, tag?: string) =>
      dispatch(tag === undefined ? { type: 'edit', change } : { type: 'edit', change, tag }),
    [],
  )

  useEffect(() => {
    if (id !== 'new') rememberOpened(id)
  }, [id])

  useEffect(() => {
    const timer = window.setTimeout(() => dispatch({ type: 'settle' }), STEP_MS)
    return () => window.clearTimeout(timer)
  }, [document])

  const dirty = !same(wire, saved)
  useEffect(() => {
    if (dirty) keepDraft(id, { document: wire, basedOn, at: new Date().toISOString() })
    else dropDraft(id)
  }, [id, wire, basedOn, dirty])

  const saving = useRef(false)
  const store = useCallback(
    async (how: { on: number } | { fresh: true }) => {
      if (saving.current) return
      saving.current = true
      setSave({ kind: 'saving' })
      const document = { ...wire, work: { ...wire.work, room_temperature_c: room } }
      try {
        const fresh = 'fresh' in how
        const kept = fresh ? await createComponent(document) : await saveComponent(id, document, how.on)
        void client.invalidateQueries({ queryKey: ['components'] })
        void client.invalidateQueries({ queryKey: ['formula-revisions', id] })
        setRestored(null)
        if (fresh) {
          dropDraft(id)
          setSave({ kind: 'idle' })
          await navigate(`/bench/${kept.id}`, { replace: id === 'new' })
          return
        }
        setSaved(wire)
        setBasedOn(kept.revision)
        setSave({ kind: 'saved', revision: kept.revision })
      } catch (error) {
        if (error instanceof ProblemError && error.problem.status === 409) {
          setSave({ kind: 'conflict', current: error.problem.current_revision ?? 0 })
        } else if (error instanceof ProblemError) {
          setSave({ kind: 'refused', words: error.problem.errors?.[0]?.message ?? error.problem.detail })
        } else {
          setSave({
            kind: 'refused',
            words:
              error instanceof OfflineError
                ? 'the server is not answering. It is kept on this device; save again when it is back.'
                : 'something went wrong here; try again.',
          })
        }
      } finally {
        saving.current = false
      }
    },
    [wire, room, id, client, navigate],
  )
  const saveNow = useCallback(() => {
    void store(id === 'new' ? { fresh: true } : { on: basedOn })
  }, [store, id, basedOn])

  const setTemperature = useCallback(
    (temperature_c: number) => edit((d) => ({ ...d, work: { ...d.work, temperature_c } }), 'temperature'),
    [edit],
  )

  const applyWay = (at: number) => {
    const chosen = ways?.ways[at]
    if (!chosen) return
    trying.tryOut(null)
    edit((d) => withWay(d, chosen.document))
  }
  const then = way && {
    letter,
    grams: new Map(
      way.changes.flatMap((change) => (change.line == null ? [] : [[change.line, change.to_g] as const])),
    ),
  }

  useBenchKeys({
    tryWay: (at) => {
      if (ways?.ways[at]) trying.tryOut(trying.tried === at ? null : at)
    },
    useTried: () => {
      if (trying.tried === null) return false
      applyWay(trying.tried)
      return true
    },
    putBack: () => trying.tryOut(null),
    undo: () => dispatch({ type: 'undo' }),
    redo: () => dispatch({ type: 'redo' }),
    save: saveNow,
    nudge: (by) =>
      setTemperature(Math.min(family?.hottest_c ?? 45, Math.max(0, document.work.temperature_c + by))),
  })

  const load = (next: FormulaDocument) => edit(() => fromWire(next))
  const use = useCallback((next: FormulaDocument) => edit((d) => withWay(d, next)), [edit])
  useInWork(asked, use)

  return (
    <div className="tray flex flex-1 flex-col gap-2 px-6 pt-3 pb-3.5 max-[760px]:px-4">
      <div className="grid grid-cols-[424px_minmax(0,1fr)] gap-x-6 gap-y-2 max-[1100px]:grid-cols-[372px_minmax(0,1fr)] max-[960px]:grid-cols-1">
        <Title
          document={document}
          edit={edit}
          restored={restored}
          onThrowAway={() => {
            dispatch({ type: 'load', document: fromWire(saved) })
            setBasedOn(basedOnFirst)
            setRestored(null)
          }}
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
        />
      </div>
      <Balance answer={answer} instead={way?.phases_of_total_percent} fresh={current} />
      <div className="grid flex-1 grid-cols-[424px_minmax(0,1fr)] gap-x-6 gap-y-5 max-[1100px]:grid-cols-[372px_minmax(0,1fr)] max-[1100px]:gap-x-6 max-[960px]:grid-cols-1">
        <section aria-label="Formula" className="flex flex-col gap-2 max-[960px]:order-2">
          <FormulaTable
            document={document}
            answer={answer}
            faults={faults}
            edit={edit}
            settle={() => dispatch({ type: 'settle' })}
            then={then ?? null}
            onLimits={() => setLimiting(true)}
          />
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
            versions={VERSIONS}
            id={id}
            name={document.name}
            basedOn={basedOn}
            dirty={dirty}
            state={save}
            canUndo={state.past.length > 0}
            canRedo={state.future.length > 0}
            onUndo={() => dispatch({ type: 'undo' })}
            onRedo={() => dispatch({ type: 'redo' })}
            onSave={saveNow}
            onSaveOnTop={(revision) => void store({ on: revision })}
            onSaveAsNew={() => void store({ fresh: true })}
            onLoad={load}
            onTheirs={(theirs, revision) => {
              load(theirs)
              setSaved(theirs)
              setBasedOn(revision)
            }}
            onSettled={() => setSave({ kind: 'idle' })}
          />
        </section>
        <section aria-label="Window map" className="flex min-w-0 flex-col gap-3 max-[960px]:order-1">
          <WindowMap
            answer={answer}
            here={way?.at ?? here}
            way={way ? { words: `with ${letter}`, onMap: way.on_map } : null}
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
              onUse={applyWay}
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
        <RulesSheet document={document} entries={entries} edit={edit} onClose={() => setLimiting(false)} />
      )}
    </div>
  )
}

interface BenchKeys {
  tryWay: (at: number) => void
  /** Uses the way that is tried; false when none is. */
  useTried: () => boolean
  putBack: () => void
  undo: () => void
  redo: () => void
  save: () => void
  nudge: (by: number) => void
}

function useBenchKeys(keys: BenchKeys) {
  const latest = useRef(keys)
  useEffect(() => {
    latest.current = keys
  })
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { undo, redo, save, nudge } = latest.current
      const held = event.ctrlKey || event.metaKey
      const key = event.key.toLowerCase()
      const act = (run: () => void) => {
        event.preventDefault()
        run()
      }
      if (held && key === 's') return act(save)
      if (held && key === 'z') return act(event.shiftKey ? redo : undo)
      if (held && key === 'y') return act(redo)
      if (held || event.altKey || isTyping(event.target) || event.defaultPrevented) return
      const open = window.document.querySelector('[role="dialog"], [role="menu"], [role="listbox"]')
      if (open) return
      if (key === 's') return act(save)
      const way = LETTERS.findIndex((letter) => letter.toLowerCase() === key)
      if (way >= 0) return act(() => latest.current.tryWay(way))
      if (key === 'escape') return latest.current.putBack()
      const pressable = event.target instanceof HTMLElement && event.target.closest('button, a, summary')
      if (key === 'enter' && !pressable && latest.current.useTried()) return event.preventDefault()
      if (key === '/') return act(() => window.document.getElementById('add-ingredient')?.click())
      const onSelf =
        event.target instanceof HTMLElement &&
        event.target.closest('[role="slider"], [role="radiogroup"], [role="group"]')
      if (onSelf) return
      if (key === 'arrowleft') return act(() => nudge(-0.5))
      if (key === 'arrowright') return act(() => nudge(0.5))
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}
