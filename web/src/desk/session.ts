import { useLocation } from 'react-router'

/** What a place in the history carries: which piece of work it shows, and what is brought to it. */
interface Carried {
  /** The same as long as the same work is in hand, also when it gets its address with its first save. */
  session?: string
  /** A document from elsewhere: a batch brought to a size, a build to begin with. */
  bring?: unknown
}

export function useCarried(): Carried {
  const { state } = useLocation()
  return typeof state === 'object' && state !== null ? (state as Carried) : {}
}
