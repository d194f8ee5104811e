import { useCallback, useState } from 'react'
import { Link, Navigate, useLocation, useNavigate, useParams, useSearchParams } from 'react-router'
import { ProblemError } from '../../api/client'
import type { OrderDocument } from '../../api/client'
import { same } from '../../desk/same'
import { useCarried } from '../../desk/session'
import { newId } from '../../desk/tabs'
import { Unsaved } from '../../desk/Unsaved'
import { useFoundDraft } from '../../desk/useFoundDraft'
import type { Opened } from '../../desk/useSaving'
import { Button } from '../../ui/Button'
import { useKitchen } from '../kitchen/queries'
import { emptyOrder } from './document'
import { OrderDesk } from './OrderDesk'
import { lastOrder, useOrder, useOrders } from './queries'

/** Where the rail leads: the order opened last, else the next one, else the list. */
export function StackStart() {
  const orders = useOrders()
  if (orders.isPending) return <div className="tray flex-1" aria-busy="true" />
  const open = (orders.data ?? []).filter((order) => !order.archived)
  const last = open.find((order) => order.id === lastOrder()) ?? open[0]
  return <Navigate to={last ? `/stack/${last.id}` : '/orders'} replace />
}

/** Loads what the address names, with unsaved work on top. */
export function OrderPage() {
  const { id = 'new' } = useParams()
  const [asked] = useSearchParams()
  const { session } = useCarried()
  const draft = asked.get('draft')
  if (id === 'new' && !draft) return <Navigate to={`/stack/new?draft=${newId()}`} replace />
  const key = session ?? (id === 'new' ? draft : `${id} ${draft ?? ''}`)
  return <OnDesk key={key} id={id} draft={draft} />
}

function OnDesk({ id, draft: named }: { id: string; draft: string | null }) {
  const navigate = useNavigate()
  const { session, bring } = useCarried()
  const { search } = useLocation()
  // What was open at the first look stays: its own first save changes the address under it.
  const [first] = useState(id)
  const thing = first === 'new' ? null : first
  const kitchen = useKitchen()
  const order = useOrder(first, thing !== null)
  const found = useFoundDraft('order', thing, named)
  const [opened, setOpened] = useState<Opened<OrderDocument> | null>(null)
  const onBorn = useCallback(
    (born: string) => {
      // The same view of the same cake.
      const query = new URLSearchParams(search)
      query.delete('draft')
      const state = { session: session ?? named ?? born }
      void navigate(`/stack/${born}?${query.toString()}`, { replace: thing === null, state })
    },
    [navigate, search, session, named, thing],
  )
  const gone = order.error instanceof ProblemError && order.error.problem.status === 404
  if (opened === null && found) {
    const draft = found.draft?.document as OrderDocument | undefined
    const at = found.draft?.at ?? null
    const { id: draftId, elsewhere } = found
    const basedOn = found.draft?.basedOn ?? 0
    if (thing === null && kitchen.data) {
      const begun = emptyOrder(kitchen.data.room_temperature_c)
      const document = draft ?? (bring as OrderDocument | undefined) ?? begun
      setOpened({ draftId, thing, saved: null, basedOn: 0, document, restored: null, elsewhere })
    } else if (order.data) {
      const saved = order.data.document
      const kept = draft && !same(draft, saved) ? draft : null
      const from = kept ? basedOn : order.data.revision
      const document = kept ?? saved
      setOpened({ draftId, thing, saved, basedOn: from, document, restored: kept ? at : null, elsewhere })
    } else if (order.isError && draft && !gone) {
      // The file cannot be read just now: the draft is put up as what it is, unsaved, and stays one.
      setOpened({ draftId, thing, saved: null, basedOn, document: draft, restored: at, elsewhere })
    }
  }
  if (opened) return <OrderDesk opened={opened} onBorn={onBorn} />
  if (order.isError && found) {
    return (
      <div className="tray flex-1 p-8">
        <h1 className="text-[30px] text-hot">No cake to show</h1>
        <p className="mt-2">{gone ? 'There is no order at this address.' : order.error?.message}</p>
        <div className="mt-4 flex gap-3">
          <Button look="primary" onClick={() => void order.refetch()}>
            Try again
          </Button>
          <Link className="inline-flex items-center px-3 font-[640] text-rim underline" to="/orders">
            All orders
          </Link>
        </div>
        <div className="mt-6 max-w-3xl">
          <Unsaved noun="order" />
        </div>
      </div>
    )
  }
  return <div className="tray flex-1" aria-busy="true" />
}
