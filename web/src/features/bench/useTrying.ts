import { useEffect, useState } from 'react'

/** The keys that try a way. C is the clock's. */
export const LETTERS = ['A', 'D', 'E', 'F', 'H'] as const
/** Longer than this and the page says that it is looking. */
const SAY_AFTER_MS = 1000

/** Whether something has been waited for so long that it must be said. */
export function useSlow(waiting: boolean): boolean {
  const [slow, setSlow] = useState(false)
  useEffect(() => {
    if (!waiting) return
    const timer = window.setTimeout(() => setSlow(true), SAY_AFTER_MS)
    return () => {
      window.clearTimeout(timer)
      setSlow(false)
    }
  }, [waiting])
  return waiting && slow
}

/** What is looked at: pointed at while the hand is there, tried until it is used or put back. */
export function useTrying(key: string) {
  const [state, setState] = useState<{ key: string; tried: number | null; pointed: number | null }>({
    key,
    tried: null,
    pointed: null,
  })
  // Another question, other ways: nothing is tried any more.
  const now = state.key === key ? state : { key, tried: null, pointed: null }
  return {
    tried: now.tried,
    shown: now.pointed ?? now.tried,
    point: (pointed: number | null) => {
      if (now.pointed !== pointed) setState({ ...now, pointed })
    },
    tryOut: (tried: number | null) => setState({ key, tried, pointed: null }),
  }
}
