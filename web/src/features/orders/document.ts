import type { OrderDocument, OrderedCake, StackDocument } from '../../api/client'

export const FORMAT = 'bright-spoon/order'

export function emptyOrder(room: number): OrderDocument {
  return { format: FORMAT, version: 1, name: '', room_temperature_c: room, cakes: [] }
}

export function cakeOf(stack: StackDocument, count = 1): OrderedCake {
  return { stack, count }
}

/** The order with another cake at a place. */
export function withCake(order: OrderDocument, at: number, cake: OrderedCake): OrderDocument {
  return { ...order, cakes: order.cakes.map((own, k) => (k === at ? cake : own)) }
}
