import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { FormulaDocument, OrderDocument, OrderSummary, ReadFile } from '../../api/client'
import { newId } from '../../desk/tabs'
import { Unsaved } from '../../desk/Unsaved'
import { Button } from '../../ui/Button'
import { useKitchen } from '../kitchen/queries'
import { useCreate } from '../library/queries'
import { cakeOf, emptyOrder, FORMAT } from './document'
import { useWhichToUse } from '../library/useWhichToUse'
import { archiveOrder, readFile, useBeginnings, useOrders } from './queries'
import { ReadRecipe } from './ReadRecipe'
import { when } from './when'
import { useTitle } from '../../lib/hooks'
import { Tick } from '../../ui/Tick'
import { FilePick, JSON_FILES } from '../../ui/FilePick'

/** All orders, the next to be eaten first; a new one from a build or from a file. */
export function OrdersPage() {
  const orders = useOrders()
  useTitle('Orders')
  const beginnings = useBeginnings()
  const kitchen = useKitchen()
  const navigate = useNavigate()
  const create = useCreate()
  const which = useWhichToUse()
  const [away, setAway] = useState(false)
  const [said, setSaid] = useState<string | null>(null)
  const [recipe, setRecipe] = useState<Extract<ReadFile, { kind: 'recipe' }> | null>(null)
  const room = kitchen.data?.room_temperature_c ?? 21
  const open = (document: OrderDocument) => {
    // Each beginning is a draft of its own: nothing begun before is laid over.
    void navigate(`/stack/new?draft=${newId()}`, { state: { bring: document } })
  }
  const keep = async (document: FormulaDocument) => {
    const name = document.name?.trim() ? document.name : 'Formula from a file'
    const kept = await create.mutateAsync({ ...document, name })
    await navigate(`/bench/${kept.id}`)
  }
  const take = async (text: string) => {
    try {
      const read = await which.settle(await readFile(text))
      if (!read) return
      if (read.kind === 'order') open(read.document)
      else if (read.kind === 'stack')
        open({ ...emptyOrder(room), name: read.document.name ?? '', cakes: [cakeOf(read.document)] })
      else if (read.kind === 'recipe') setRecipe(read)
      else await keep(read.document)
    } catch (error) {
      setSaid(error instanceof Error ? sentence(error.message) : 'The file cannot be read.')
    }
  }
  const place = async (order: OrderSummary, archived: boolean) => {
    try {
      await archiveOrder(order.id, archived)
    } catch (error) {
      setSaid(error instanceof Error ? sentence(error.message) : 'It could not be put away.')
    }
  }
  const shown = (orders.data ?? []).filter((order) => away || !order.archived)
  return (
    <div className="tray flex-1 px-6 pt-4 pb-6 max-phone:px-4">
      {which.sheet}
      {recipe && (
        <ReadRecipe
          document={recipe.document}
          lines={recipe.lines}
          keeping={create.isPending}
          wrong={create.isError ? sentence(create.error.message) : null}
          onKeep={() => void keep(recipe.document).catch(() => undefined)}
          onLeave={() => setRecipe(null)}
        />
      )}
      <div className="grid grid-cols-[minmax(0,1fr)_380px] gap-8 max-tablet:grid-cols-1">
        <section aria-label="Orders">
          <h1 className="text-display">{heading(shown)}</h1>
          {orders.isError && (
            <p role="alert" className="mt-2 text-hot">
              The orders cannot be read. {orders.error?.message}{' '}
              <Button onClick={() => void orders.refetch()}>Try again</Button>
            </p>
          )}
          {said && (
            <p role="alert" className="mt-2">
              {said}
            </p>
          )}
          <div className="mt-2">
            <Unsaved noun="order" />
          </div>
          <ul aria-label="All orders" className="mt-3 border-t border-line">
            {shown.map((order) => (
              <li
                key={order.id}
                className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line py-2"
              >
                <Link
                  to={`/stack/${order.id}`}
                  className="min-h-11 min-w-[220px] flex-1 rounded-lg px-1 hover:bg-rim-tint"
                >
                  <span className="block font-head text-title font-[640]">{order.name}</span>
                  <span className="text-ink2">
                    {order.pieces} {order.pieces === 1 ? 'piece' : 'pieces'}, version {order.revision}
                    {order.archived ? ', put away' : ''}
                  </span>
                </Link>
                <span className="w-44 font-[640]">{when(order.served_at) ?? 'no date yet'}</span>
                <Button look="quiet" className="px-3" onClick={() => void place(order, !order.archived)}>
                  {order.archived ? 'Take out again' : 'Put away'}
                </Button>
              </li>
            ))}
          </ul>
          {(orders.data ?? []).some((order) => order.archived) && (
            <Tick className="mt-3" checked={away} onChange={setAway}>
              Also those put away
            </Tick>
          )}
        </section>
        <section aria-label="A new order" className="flex flex-col gap-2">
          <h2 className="text-title">Begin with</h2>
          {byGroup(beginnings.data?.templates ?? []).map(([group, all]) => (
            <div key={group}>
              <h3 className="pt-1 text-note font-[640] text-ink2">{group}</h3>
              <ul className="border-t border-line">
                {all.map((template) => (
                  <li key={template.key} className="border-b border-line">
                    <button
                      type="button"
                      className="min-h-11 w-full rounded-lg px-2 py-1.5 text-left hover:bg-rim-tint"
                      onClick={() =>
                        open({ ...emptyOrder(room), cakes: [cakeOf({ ...template.document, name: '' })] })
                      }
                    >
                      <b className="font-head text-lead">{template.name}</b>
                      <span className="block text-note text-ink2">{template.about}</span>
                    </button>
                  </li>
                ))}
              </ul>
            </div>
          ))}
          <div className="flex flex-wrap gap-2 pt-1">
            <Button onClick={() => open(emptyOrder(room))}>Empty order</Button>
            <FilePick
              label="File with an order, a cake or a recipe"
              accept={JSON_FILES}
              onPick={(chosen) => void chosen.text().then(take)}
            >
              Read a file
            </FilePick>
          </div>
          <p className="text-note text-ink2">
            A {FORMAT} or cake file, or a recipe as JSON-LD. A recipe becomes a formula.
          </p>
        </section>
      </div>
    </div>
  )
}

function sentence(words: string): string {
  const first = words.charAt(0).toUpperCase() + words.slice(1)
  return /[.!?]$/.test(first) ? first : `${first}.`
}

/** How many, and when the next is. */
function heading(orders: OrderSummary[]): string {
  const next = orders.find((order) => order.served_at && new Date(order.served_at) > new Date())
  if (orders.length === 0) return 'Nothing is ordered yet'
  const many = orders.length === 1 ? 'One order' : `${orders.length} orders`
  return next ? `${many}; next is ${next.name}` : many
}

/** Builds under what they stand, in the order they come in. */
function byGroup<T extends { group: string }>(templates: T[]): [string, T[]][] {
  const groups = new Map<string, T[]>()
  for (const own of templates) groups.set(own.group, [...(groups.get(own.group) ?? []), own])
  return [...groups]
}
