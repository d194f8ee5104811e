import { useCallback, useEffect, useMemo, useState } from 'react'
import { useLocation, useNavigate, useSearchParams } from 'react-router'
import { answer as take, api, ProblemError } from '../../api/client'
import type { BenchWork, OrderDocument, StackDocument } from '../../api/client'
import { DraftNotice } from '../../desk/DraftNotice'
import { useHistory } from '../../desk/history'
import { SavePanel } from '../../desk/SavePanel'
import { useDeskKeys } from '../../desk/useDeskKeys'
import { useSaving } from '../../desk/useSaving'
import type { Opened } from '../../desk/useSaving'
import { fileName, saveAs } from '../../lib/save'
import { useKitchen } from '../kitchen/queries'
import { useComponents } from '../library/queries'
import { CakeView } from '../stack/CakeView'
import { withCake } from './document'
import { Incomplete } from './Incomplete'
import { LabelsView } from './LabelsView'
import { MakeView } from './MakeView'
import { OrderHead, VIEWS } from './OrderHead'
import type { ViewName } from './OrderHead'
import { OrderPrint } from './OrderPrint'
import { OrderView } from './OrderView'
import { ORDER, rememberOrder, useOrderAnswer, writeFile } from './queries'
import { ShopView } from './ShopView'
import { useTitle } from '../../lib/hooks'

interface OrderDeskProps {
  opened: Opened<OrderDocument>
  /** Something new got its key. */
  onBorn: (id: string) => void
}

/** An order in hand: its cakes, its lists, its labels. */
export function OrderDesk({ opened, onBorn }: OrderDeskProps) {
  const history = useHistory(opened.document)
  const { document, edit } = history
  useTitle(`${document.name?.trim() || 'New order'}, Stack`)
  const [selected, setSelected] = useState<string | null>(null)
  const [wrongBench, setWrongBench] = useState<string | null>(null)
  const [params, setParams] = useSearchParams()
  const navigate = useNavigate()
  const { state: carried } = useLocation() as { state: unknown }
  const kitchen = useKitchen()
  const components = useComponents()
  const { found: answer, before, wrong, offline } = useOrderAnswer(document)

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
      setParams(
        (now) => {
          const to = new URLSearchParams(now)
          to.set('view', next)
          if (at) to.set('cake', String(at))
          else to.delete('cake')
          return to
        },
        { replace: true, state: carried },
      )
      setSelected(null)
    },
    [setParams, carried],
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

  const saving = useSaving(ORDER, opened, document, document, onBorn)
  const { thing } = saving
  useEffect(() => {
    if (thing !== null) rememberOrder(thing)
  }, [thing])

  useDeskKeys('Order', { save: saving.save, undo: history.undo, redo: history.redo }, [
    { key: 'p', words: 'Print', run: () => window.print() },
  ])

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
      await navigate(`/bench/${component}`, how ? { state: { bring: next } } : {})
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

  const kept = opened.saved
  return (
    <div className="tray flex flex-1 flex-col gap-3 px-6 pt-3 pb-4 max-phone:px-4">
      <OrderHead
        document={document}
        view={view}
        cakeAt={cakeAt}
        onView={go}
        notice={<DraftNotice saving={saving} onBack={kept && (() => history.load(kept))} />}
      >
        <SavePanel
          compact
          keeping={ORDER}
          saving={saving}
          steps={history}
          name={document.name ?? ''}
          take="Take in hand"
          inHand={(kept) => kept}
          onLoad={(next) => edit(() => next)}
        />
      </OrderHead>
      {(wrong ?? wrongBench) && (
        <p role="alert" className="text-hot">
          {wrong ?? wrongBench}
          {wrong && before && view === 'cake' && ' The cake is drawn as it was before.'}
        </p>
      )}
      {answer && view !== 'cake' && <Incomplete of={answer.incomplete} />}
      {answer && view === 'cake' && <Incomplete of={answer.cakes[cakeAt]?.incomplete ?? []} />}
      {offline && <p role="status">No answer from the server; what is shown is from before.</p>}
      {view === 'cake' && cake && (
        <CakeView
          key={cakeAt}
          cake={cake}
          answer={(answer ?? before)?.cakes[cakeAt]}
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
          order={opened.thing}
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
