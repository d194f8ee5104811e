import { useState } from 'react'
import { Link } from 'react-router'
import type { OrderSummary } from '../../api/client'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { Tick } from '../../ui/Tick'
import { when } from '../orders/when'

interface TakeSheetProps {
  orders: OrderSummary[]
  asking: boolean
  wrong: string | null
  onAsk: (order: string) => void
  onClose: () => void
}

/** Can I take this order? It is planned into what stands, and nothing is promised by asking. */
export function TakeSheet({ orders, asking, wrong, onAsk, onClose }: TakeSheetProps) {
  const [chosen, setChosen] = useState(orders[0]?.id ?? '')
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && onClose()}
      title="Can I take this order?"
      lead="It is planned into what stands: what it costs, what moves, until when you can say yes."
    >
      <div role="radiogroup" aria-label="Orders not in the plan" className="min-h-0 overflow-y-auto">
        {orders.map((order) => (
          <Tick
            key={order.id}
            radio="order"
            checked={chosen === order.id}
            onChange={() => setChosen(order.id)}
          >
            <b>{order.name}</b> {when(order.served_at)}, {order.pieces}{' '}
            {order.pieces === 1 ? 'piece' : 'pieces'}
          </Tick>
        ))}
      </div>
      {orders.length === 0 && (
        <p>
          Every order with a date to come is in the plan. Write the new one as an{' '}
          <Link className="font-[640] text-rim underline" to="/orders">
            order
          </Link>
          , save it, and ask here.
        </p>
      )}
      {wrong && (
        <p role="alert" className="text-hot">
          {wrong}
        </p>
      )}
      {orders.length > 0 && (
        <div>
          <Button look="primary" disabled={asking || chosen === ''} onClick={() => onAsk(chosen)}>
            {asking ? 'Planning it in…' : 'Plan it in'}
          </Button>
        </div>
      )}
    </Sheet>
  )
}
