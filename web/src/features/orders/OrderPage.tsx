import { useCallback, useState } from 'react'
import { Link, Navigate, useLocation, useNavigate, useParams, useSearchParams } from 'react-router'
import { ProblemError } from '../../api/client'
import type { OrderDocument } from '../../api/client'
import { useCarried } from '../../desk/session'
import { newId } from '../../desk/tabs'
import { Unsaved } from '../../desk/Unsaved'
import { useOpened } from '../../desk/useOpened'
import type { Looked } from '../../desk/useOpened'
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

/** What the kitchen's file has under an address, or what a new order begins with. */
function useLooked(id: string): Looked<OrderDocument> {
  const isNew = id === 'new'
  const { bring } = useCarried()
  const kitchen = useKitchen()
  const order = useOrder(id, !isNew)
  if (isNew) {
    if (!kitchen.data) return null
    const begun = (bring as OrderDocument | undefined) ?? emptyOrder(kitchen.data.room_temperature_c)
    return { saved: null, begun, basedOn: 0 }
  }
  if (order.isError) {
    const gone = order.error instanceof ProblemError && order.error.problem.status === 404
    const wrong = gone ? 'There is no order at this address.' : (order.error?.message ?? '')
    return { wrong, gone, again: () => void order.refetch() }
  }
  return order.data ? { saved: order.data.document, begun: null, basedOn: order.data.revision } : null
}

function OnDesk({ id, draft: named }: { id: string; draft: string | null }) {
  const navigate = useNavigate()
  const { session } = useCarried()
  const { search } = useLocation()
  // What was open at the first look stays: its own first save changes the address under it.
  const [first] = useState(id)
  const thing = first === 'new' ? null : first
  const { opened, wrong } = useOpened('order', thing, named, useLooked(first))
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
  if (opened) return <OrderDesk opened={opened} onBorn={onBorn} />
  if (wrong) {
    return (
      <div className="tray flex-1 p-8">
        <h1 className="text-display text-hot">No cake to show</h1>
        <p className="mt-2">{wrong.words}</p>
        <div className="mt-4 flex gap-3">
          <Button look="primary" onClick={wrong.again}>
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
