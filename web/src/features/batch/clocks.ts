import { useEffect, useState } from 'react'

/** The minute by the clock of this device, every second while something runs. */
export function useNow(runs: boolean): number {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    if (!runs) return
    const timer = window.setInterval(() => setNow(Date.now()), 1000)
    return () => window.clearInterval(timer)
  }, [runs])
  return now
}

/** "04:40", "1:19:05". */
export function left(ms: number): string {
  const all = Math.max(0, Math.ceil(ms / 1000))
  const [hours, minutes, seconds] = [Math.floor(all / 3600), Math.floor(all / 60) % 60, all % 60]
  const two = (value: number) => String(value).padStart(2, '0')
  return hours > 0 ? `${hours}:${two(minutes)}:${two(seconds)}` : `${two(minutes)}:${two(seconds)}`
}
