import { Component } from 'react'
import type { ReactNode } from 'react'
import { Link, useLocation, useNavigate, useRouteError } from 'react-router'
import { OfflineError } from '../api/client'
import { saveDraft, useDrafts } from '../desk/Unsaved'
import { moment } from '../lib/format'
import { useTitle } from '../lib/hooks'
import { Button } from '../ui/Button'

/** A view that broke: what was in hand is offered, never a blank page or a trace of the program. */
export function Broken() {
  const error = useRouteError()
  const drafts = useDrafts()
  const navigate = useNavigate()
  const here = useLocation()
  const silent = error instanceof OfflineError
  useTitle(silent ? 'Not fetched' : 'This page broke')
  return (
    <div className="tray flex-1 p-8">
      <h1 className="text-display text-hot">{silent ? 'This page is not fetched yet' : 'This page broke'}</h1>
      <p className="mt-2">
        {silent ? 'The server is not answering.' : 'That is a fault of the program, not yours.'}{' '}
        {drafts.length > 0 ? 'Your unsaved work is still here.' : 'Nothing unsaved is on this device.'}
      </p>
      <ul className="mt-3 max-w-xl">
        {drafts.map((draft) => (
          <li key={draft.id} className="flex items-center gap-4 border-t border-line py-1">
            <span className="flex-1">
              <b>{draft.name || `A ${draft.noun} without a name`}</b>, {moment(draft.at)}
            </span>
            <Button onClick={() => saveDraft(draft)}>Save as a file</Button>
          </li>
        ))}
      </ul>
      <div className="mt-4 flex gap-3">
        {silent ? (
          <Button look="primary" onClick={() => void navigate(here, { replace: true })}>
            Try again
          </Button>
        ) : (
          <Button look="primary" onClick={() => window.location.reload()}>
            Load it again
          </Button>
        )}
        <Link className="inline-flex items-center px-3 font-[640] text-rim underline" to="/formulas">
          All formulas
        </Link>
      </div>
      {!silent && (
        <p className="mt-6 text-small text-ink2">
          For who mends it: {error instanceof Error ? error.message : 'no message'}
        </p>
      )}
    </div>
  )
}

/** The same when even the frame of the page broke: without anything that could break again. */
export class LastResort extends Component<{ children: ReactNode }, { broken: boolean }> {
  override state = { broken: false }
  static getDerivedStateFromError() {
    return { broken: true }
  }
  override render() {
    if (!this.state.broken) return this.props.children
    return (
      <main style={{ padding: '2rem' }}>
        <h1>This page broke</h1>
        <p>Your unsaved work is kept on this device. Load the page again; it is listed among the formulas.</p>
        <a href="/formulas">All formulas</a>
      </main>
    )
  }
}
