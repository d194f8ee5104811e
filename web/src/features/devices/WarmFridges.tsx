import { useState } from 'react'
import { useShow } from '../../api/live'
import { moment } from '../../lib/format'
import { useDevices } from './queries'

/** How long after it was cold again a fridge is still told of, ms: a day. */
const TOLD_MS = 24 * 3_600_000

/** Fridges that are or were too warm: where, since when, and what stood in them. */
export function WarmFridges() {
  // While it is shown the page listens: a fridge that gets warm now is told now.
  useShow()
  const devices = useDevices()
  const [now] = useState(() => Date.now())
  const all = (devices.data?.warm ?? []).filter(
    (own) => own.until == null || now - Date.parse(own.until) < TOLD_MS,
  )
  return all.map((own) => (
    <p
      key={`${own.name} ${own.since}`}
      role="alert"
      className="rounded-xl border-[3px] border-hot p-3 text-lead text-hot"
    >
      {own.words} From {moment(own.since)}
      {own.until ? ` to ${moment(own.until)}` : ' on'}.
    </p>
  ))
}
