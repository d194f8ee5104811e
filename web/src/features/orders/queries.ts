import { asking, useFixed, useKept, useQuestion, useTaken } from '../../api/ask'
import { answer, api } from '../../api/client'
import type { ListKind, OrderDocument, ReadFile, StackDocument } from '../../api/client'
import { keptAt } from '../../desk/keeping'

export function useOrders() {
  return useKept(asking('get', '/api/orders'))
}

export function useOrder(id: string, on = true) {
  return useTaken(asking('get', '/api/orders/{id}', { params: { path: { id } } }), on)
}

/**
 * The order worked out; the last answer stays until the next is there. `before` is the last one there was: the cake
 * stays in sight while a size in it cannot be, but no list and no label is made from it.
 */
export function useOrderAnswer(document: OrderDocument) {
  return useQuestion(asking('post', '/api/order', { body: document }))
}

/** Builds to begin with, batters, kinds of sponge. They do not change while the program runs. */
export function useBeginnings() {
  return useFixed(asking('get', '/api/stack/begin'))
}

/** How an order is kept. */
export const ORDER = keptAt<OrderDocument>('order', '/api/orders')

export function archiveOrder(id: string, archived: boolean) {
  return answer(api.PUT('/api/orders/{id}/place', { params: { path: { id } }, body: { archived } }))
}

export function readFile(text: string): Promise<ReadFile> {
  return answer(api.POST('/api/files/read', { body: { text } }))
}

type Written = { kind: 'order'; document: OrderDocument } | { kind: 'stack'; document: StackDocument }

/** A cake or an order as a file: whole, or as a recipe. */
export async function writeFile(written: Written, form: 'json' | 'recipe'): Promise<string> {
  const value = await answer(api.POST('/api/files', { params: { query: { form } }, body: written }))
  return `${JSON.stringify(value, null, 2)}\n`
}

/** A list of an order as CSV. */
export function writeList(document: OrderDocument, list: ListKind): Promise<string> {
  return answer(api.POST('/api/order/list', { params: { query: { list } }, body: document, parseAs: 'text' }))
}

const LATELY = 'bright-spoon.order'

/** The order opened last on this device. */
export function lastOrder(): string | null {
  try {
    return localStorage.getItem(LATELY)
  } catch {
    return null
  }
}

export function rememberOrder(id: string) {
  try {
    localStorage.setItem(LATELY, id)
  } catch {
    // Nothing hangs on it.
  }
}
