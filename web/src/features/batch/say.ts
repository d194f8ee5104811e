import type { BatchEvent } from '../../api/client'

/** Says what happened; the ids under which it did. */
export type Say = (...events: BatchEvent[]) => string[]
