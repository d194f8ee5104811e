import { useMemo, useState } from 'react'
import { Link, Navigate, useParams } from 'react-router'
import { ProblemError } from '../../api/client'
import type { OrderDocument } from '../../api/client'
import { readDraft, same } from '../../lib/draft'
import { Button } from '../../ui/Button'
import { useKitchen } from '../kitchen/queries'
import { draftKey, emptyOrder, FORMAT } from './document'
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
  return id === 'new' ? <NewOrder /> : <SavedOrder key={id} id={id} />
}

function NewOrder() {
  const kitchen = useKitchen()
  if (!kitchen.data) return <div className="tray flex-1" aria-busy="true" />
  const empty = emptyOrder(kitchen.data.room_temperature_c)
  return <Opened id="new" basedOn={0} saved={empty} />
}

function SavedOrder({ id }: { id: string }) {
  const order = useOrder(id)
  if (order.isError) {
    const gone = order.error instanceof ProblemError && order.error.problem.status === 404
    const draft = readDraft<OrderDocument>(draftKey(id), FORMAT)
    if (!gone && draft) return <Opened id={id} basedOn={draft.basedOn} saved={draft.document} />
    return (
      <div className="tray flex-1 p-8">
        <h1 className="text-[30px] text-hot">No cake to show</h1>
        <p className="mt-2">{gone ? 'There is no order at this address.' : order.error.message}</p>
        <div className="mt-4 flex gap-3">
          <Button look="primary" onClick={() => void order.refetch()}>
            Try again
          </Button>
          <Link className="inline-flex items-center px-3 font-[640] text-rim underline" to="/orders">
            All orders
          </Link>
        </div>
      </div>
    )
  }
  if (!order.data) return <div className="tray flex-1" aria-busy="true" />
  return <Opened id={id} basedOn={order.data.revision} saved={order.data.document} />
}

function Opened({ id, basedOn, saved }: { id: string; basedOn: number; saved: OrderDocument }) {
  // What was open at the first look stays: a refetch must not pour over work in hand.
  const [start] = useState({ id, basedOn, saved })
  const draft = useMemo(() => {
    const found = readDraft<OrderDocument>(draftKey(start.id), FORMAT)
    return found && !same(found.document, start.saved) ? found : null
  }, [start])
  return (
    <OrderDesk
      id={start.id}
      saved={start.saved}
      basedOn={draft ? draft.basedOn : start.basedOn}
      document={draft ? draft.document : start.saved}
      restored={draft !== null && start.id !== 'new' ? draft.at : null}
    />
  )
}
