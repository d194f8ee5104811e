import { Link, Navigate } from 'react-router'
import { Unsaved } from '../../desk/Unsaved'
import { Button } from '../../ui/Button'
import { lately, useComponents } from './queries'
import { useTitle } from '../../lib/hooks'

/** Opens what was saved last; an empty kitchen gets a clean spoon. */
export function StartPage() {
  const components = useComponents()
  useTitle('Bench')
  if (components.isPending) return <div className="tray flex-1" aria-busy="true" />
  const kept = components.data
  if (!kept) {
    return (
      <div className="tray flex-1 p-8">
        <h1 className="text-display text-hot">The kitchen’s file cannot be read</h1>
        <p className="mt-2">{components.error?.message} Check that the server runs, then try again.</p>
        <Button className="mt-4" look="primary" onClick={() => void components.refetch()}>
          Try again
        </Button>
      </div>
    )
  }
  const last = lately().find((id) => kept.some((each) => each.id === id && !each.archived))
  if (last) return <Navigate to={`/bench/${last}`} replace />
  const newest = kept
    .filter((each) => !each.archived)
    .reduce<(typeof kept)[number] | undefined>(
      (best, each) => (!best || each.saved_at > best.saved_at ? each : best),
      undefined,
    )
  if (newest) return <Navigate to={`/bench/${newest.id}`} replace />
  return (
    <div className="tray flex-1 p-8">
      <svg width="260" height="90" viewBox="0 0 260 90" aria-hidden="true">
        <path d="M20 50C40 84 92 82 108 46" fill="var(--spoon)" stroke="var(--ink)" strokeWidth="1.6" />
        <path d="M20 50L108 46Q150 30 240 6" fill="none" stroke="var(--rim)" strokeWidth="3.4" />
      </svg>
      <h1 className="mt-2 text-display">Empty spoon</h1>
      <p className="mt-1 text-ink2">Pick a cream and see what it will do.</p>
      <Link
        to="/new"
        className="mt-4 inline-flex min-h-11 items-center rounded-tray border-2 border-rim bg-rim px-5 font-[640] text-rim-text"
      >
        Pick a cream
      </Link>
      <div className="mt-6 max-w-3xl">
        <Unsaved />
      </div>
    </div>
  )
}
