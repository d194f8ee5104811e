import type { ReactNode } from 'react'
import { Link } from 'react-router'
import type { OrderDocument } from '../../api/client'
import { Select } from '../../ui/Select'

export const VIEWS = [
  ['cake', 'Cake'],
  ['order', 'Order'],
  ['make', 'To weigh'],
  ['shop', 'To buy'],
  ['labels', 'Labels'],
] as const

export type ViewName = (typeof VIEWS)[number][0]

interface OrderHeadProps {
  document: OrderDocument
  view: ViewName
  cakeAt: number
  onView: (view: ViewName, cake?: number) => void
  /** What is to be known of the work in hand. */
  notice: ReactNode
  children: ReactNode
}

/** Which order, which of its views, and the ways to keep it. */
export function OrderHead({ document, view, cakeAt, onView, notice, children }: OrderHeadProps) {
  return (
    <header className="flex flex-col gap-1">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-line pb-2">
        <nav aria-label="Views of the order" className="flex flex-wrap gap-1">
          {VIEWS.map(([key, word]) => (
            <button
              key={key}
              type="button"
              aria-current={view === key ? 'page' : undefined}
              disabled={key === 'cake' && document.cakes.length === 0}
              className={`min-h-9 rounded-lg px-3 font-[640] disabled:opacity-50 pointer-coarse:min-h-11 ${
                view === key ? 'bg-rim text-rim-text' : 'text-rim hover:bg-rim-tint'
              }`}
              onClick={() => onView(key, key === 'cake' ? cakeAt : undefined)}
            >
              {word}
            </button>
          ))}
        </nav>
        {view === 'cake' && document.cakes.length > 1 && (
          <Select
            inline
            label="Which cake"
            className="max-w-70"
            value={String(cakeAt)}
            onChange={(at) => onView('cake', Number(at))}
            options={document.cakes.map(
              (cake, at) => [String(at), `${cake.count} × ${cake.stack.name || `Cake ${at + 1}`}`] as const,
            )}
          />
        )}
        <Link to="/orders" className="inline-flex min-h-9 items-center font-[640] text-rim underline">
          All orders
        </Link>
        <div className="ml-auto max-tablet:ml-0">{children}</div>
      </div>
      {notice}
    </header>
  )
}
