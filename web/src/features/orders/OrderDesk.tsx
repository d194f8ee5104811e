import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { answer as take, api, OfflineError, ProblemError } from '../../api/client'
import type { BenchWork, OrderDocument, StackDocument } from '../../api/client'
import { dropDraft, keepDraft, same } from '../../lib/draft'
import { pastReducer, startPast } from '../../lib/history'
import type { Past, PastAction } from '../../lib/history'
import { isTyping } from '../../lib/hooks'
import { fileName, saveAs } from '../../lib/save'
import { SavePanel } from '../../ui/SavePanel'
import type { SaveState, Versions } from '../../ui/SavePanel'
import { useKitchen } from '../kitchen/queries'
import { useComponents } from '../library/queries'
import { CakeView } from '../stack/CakeView'
import { draftKey, withCake } from './document'
import { LabelsView } from './LabelsView'
import { MakeView } from './MakeView'
import { OrderHead, VIEWS } from './OrderHead'
import type { ViewName } from './OrderHead'
import { OrderPrint } from './OrderPrint'
import { OrderView } from './OrderView'
import {
  createOrder,
  listOrderRevisions,
  readOrderRevision,
  rememberOrder,
  saveOrder,
  useOrderAnswer,
  writeFile,
} from './queries'
import { ShopView } from './ShopView'

interface OrderDeskProps {
  id: string
  saved: OrderDocument
  basedOn: number
  document: OrderDocument
  /** When unsaved work was found again, if it was. */
  restored: string | null
}

const VERSIONS: Versions<OrderDocument> = {
  noun: 'order',
  list: listOrderRevisions,
  read: readOrderRevision,
  take: 'Take in hand',
}

/** A run of edits to one field without such a pause is one step of undo. */
const STEP_MS = 1200

/** An order in hand: its cakes, its lists, its labels. */
export function OrderDesk(props: OrderDeskProps) {
  const { id } = props
  const [state, dispatch] = useReducer<Past<OrderDocument>, OrderDocument, [PastAction<OrderDocument>]>(
    pastReducer,
    props.document,
    startPast,
  )
  const [saved, setSaved] = useState(props.saved)
  const [basedOn, setBasedOn] = useState(props.basedOn)
  const [save, setSave] = useState<SaveState>({ kind: 'idle' })
  const [restored, setRestored] = useState(props.restored)
  const [selected, setSelected] = useState<string | null>(null)
  const [wrongBench, setWrongBench] = useState<string | null>(null)
  const [params, setParams] = useSearchParams()
  const navigate = useNavigate()
  const client = useQueryClient()
  const kitchen = useKitchen()
  const components = useComponents()
  const document = state.present
  const { found: answer, wrong, offline } = useOrderAnswer(document)

  const asked = params.get('view')
  const view: ViewName =
    VIEWS.find(([key]) => key === asked)?.[0] ?? (document.cakes.length > 0 ? 'cake' : 'order')
  const cakeAt = Math.min(
    Math.max(0, Number(params.get('cake') ?? 0) || 0),
    Math.max(0, document.cakes.length - 1),
  )
  const cake = document.cakes[cakeAt]
  const go = useCallback(
    (next: ViewName, at?: number) => {
      const to = new URLSearchParams({ view: next })
      if (at) to.set('cake', String(at))
      setParams(to, { replace: true })
      setSelected(null)
    },
    [setParams],
  )

  const edit = useCallback(
    (change: (own: OrderDocument) => OrderDocument, tag?: string) =>
      dispatch(tag === undefined ? { type: 'edit', change } : { type: 'edit', change, tag }),
    [],
  )
  const editCake = useCallback(
    (change: (own: StackDocument) => StackDocument, tag?: string) =>
      edit((own) => {
        const now = own.cakes[cakeAt]
        if (!now) return own
        const stack = change(now.stack)
        return stack === now.stack ? own : withCake(own, cakeAt, { ...now, stack })
      }, tag),
    [edit, cakeAt],
  )

  useEffect(() => {
    if (id !== 'new') rememberOrder(id)
  }, [id])
  useEffect(() => {
    const timer = window.setTimeout(() => dispatch({ type: 'settle' }), STEP_MS)
    return () => window.clearTimeout(timer)
  }, [document])
  const dirty = !same(document, saved)
  useEffect(() => {
    if (dirty) keepDraft(draftKey(id), { document, basedOn, at: new Date().toISOString() })
    else dropDraft(draftKey(id))
  }, [id, document, basedOn, dirty])

  const saving = useRef(false)
  const store = useCallback(
    async (how: { on: number } | { fresh: true }) => {
      if (saving.current) return
      saving.current = true
      setSave({ kind: 'saving' })
      try {
        const fresh = 'fresh' in how
        const kept = fresh ? await createOrder(document) : await saveOrder(id, document, how.on)
        void client.invalidateQueries({ queryKey: ['orders'] })
        void client.invalidateQueries({ queryKey: ['order-revisions', id] })
        setRestored(null)
        if (fresh) {
          dropDraft(draftKey(id))
          setSave({ kind: 'idle' })
          await navigate(`/stack/${kept.id}?view=${view}`, { replace: id === 'new' })
          return
        }
        setSaved(document)
        setBasedOn(kept.revision)
        setSave({ kind: 'saved', revision: kept.revision })
      } catch (error) {
        setSave(refusal(error))
      } finally {
        saving.current = false
      }
    },
    [document, id, client, navigate, view],
  )
  const saveNow = useCallback(() => {
    void store(id === 'new' ? { fresh: true } : { on: basedOn })
  }, [store, id, basedOn])

  useKeys({
    save: saveNow,
    undo: () => dispatch({ type: 'undo' }),
    redo: () => dispatch({ type: 'redo' }),
    print: () => window.print(),
  })

  /** A component on the Bench, with the work a place asks of it, or brought to a size. */
  const toBench = async (component: string, how?: { work: BenchWork['work'] } | { grams: number }) => {
    setWrongBench(null)
    try {
      const kept = await take(api.GET('/api/components/{id}', { params: { path: { id: component } } }))
      let next = kept.document
      if (how && 'work' in how) next = { ...next, work: how.work }
      if (how && 'grams' in how) {
        const scaled = await take(
          api.POST('/api/scale', { body: { document: next, target: { to: 'mass', grams: how.grams } } }),
        )
        next = scaled.document
      }
      if (how) keepDraft(component, { document: next, basedOn: kept.revision, at: new Date().toISOString() })
      await navigate(`/bench/${component}`)
    } catch (error) {
      setWrongBench(
        error instanceof ProblemError && error.problem.status === 404
          ? 'This formula came with the cake and is not among yours: save it from its file first.'
          : 'The formula could not be put on the Bench; try again.',
      )
    }
  }

  const known = useMemo(
    () => ({
      formulas: (components.data ?? [])
        .filter((each) => !each.archived)
        .map((each) => ({ id: each.id, name: each.name, job: each.job })),
    }),
    [components.data],
  )
  const currency = kitchen.data?.currency ?? 'EUR'
  const whole = async (written: Parameters<typeof writeFile>[0], form: 'json' | 'recipe') => {
    try {
      const text = await writeFile(written, form)
      const name = fileName(written.document.name ?? '', written.kind)
      saveAs(
        `${name}.${form === 'json' ? 'json' : 'jsonld'}`,
        form === 'json' ? 'application/json' : 'application/ld+json',
        text,
      )
    } catch (error) {
      setWrongBench(error instanceof Error ? error.message : 'The file could not be written.')
    }
  }

  return (
    <div className="tray flex flex-1 flex-col gap-3 px-6 pt-3 pb-4 max-[760px]:px-4">
      <OrderHead
        document={document}
        view={view}
        cakeAt={cakeAt}
        onView={go}
        restored={restored}
        onThrowAway={() => {
          dispatch({ type: 'load', document: props.saved })
          setBasedOn(props.basedOn)
          setRestored(null)
        }}
      >
        <SavePanel
          compact
          versions={VERSIONS}
          id={id}
          name={document.name ?? ''}
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
          onLoad={(next) => edit(() => next)}
          onTheirs={(theirs, revision) => {
            edit(() => theirs)
            setSaved(theirs)
            setBasedOn(revision)
          }}
          onSettled={() => setSave({ kind: 'idle' })}
        />
      </OrderHead>
      {(wrong ?? wrongBench) && (
        <p role="alert" className="text-hot">
          {wrong ?? wrongBench}
        </p>
      )}
      {offline && <p role="status">No answer from the server; what is shown is from before.</p>}
      {view === 'cake' && cake && (
        <CakeView
          key={cakeAt}
          cake={cake}
          answer={answer?.cakes[cakeAt]}
          room={document.room_temperature_c}
          known={known}
          selected={selected}
          onSelect={setSelected}
          edit={editCake}
          onBench={(component, how) => void toBench(component, how)}
          onCount={(count) => edit((own) => withCake(own, cakeAt, { ...cake, count }), 'count')}
          onWhole={(form) => void whole({ kind: 'stack', document: cake.stack }, form)}
        />
      )}
      {view === 'order' && (
        <OrderView
          document={document}
          answer={answer}
          currency={currency}
          edit={edit}
          onCake={(at) => go('cake', at)}
          onBench={(work) => void toBench(work.component)}
          onWhole={(form) => void whole({ kind: 'order', document }, form)}
        />
      )}
      {view === 'make' && (
        <MakeView
          document={document}
          answer={answer}
          currency={currency}
          onBench={(key, grams) => void toBench(key, { grams })}
        />
      )}
      {view === 'shop' && <ShopView document={document} answer={answer} currency={currency} />}
      {view === 'labels' && <LabelsView document={document} answer={answer} edit={edit} />}
      <OrderPrint document={document} answer={answer} view={view} cakeAt={cakeAt} currency={currency} />
    </div>
  )
}

function refusal(error: unknown): SaveState {
  if (error instanceof ProblemError && error.problem.status === 409) {
    return { kind: 'conflict', current: error.problem.current_revision ?? 0 }
  }
  if (error instanceof ProblemError) {
    return { kind: 'refused', words: error.problem.errors?.[0]?.message ?? error.problem.detail }
  }
  return {
    kind: 'refused',
    words:
      error instanceof OfflineError
        ? 'the server is not answering. It is kept on this device; save again when it is back.'
        : 'something went wrong here; try again.',
  }
}

interface Keys {
  save: () => void
  undo: () => void
  redo: () => void
  print: () => void
}

function useKeys(keys: Keys) {
  const latest = useRef(keys)
  useEffect(() => {
    latest.current = keys
  })
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const held = event.ctrlKey || event.metaKey
      const key = event.key.toLowerCase()
      const act = (run: () => void) => {
        event.preventDefault()
        run()
      }
      if (held && key === 's') return act(latest.current.save)
      if (held && key === 'z') return act(event.shiftKey ? latest.current.redo : latest.current.undo)
      if (held && key === 'y') return act(latest.current.redo)
      if (held || event.altKey || isTyping(event.target) || event.defaultPrevented) return
      if (window.document.querySelector('[role="dialog"], [role="menu"]')) return
      if (key === 's') return act(latest.current.save)
      if (key === 'p') return act(latest.current.print)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}
