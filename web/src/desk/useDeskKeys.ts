import { useKeys } from '../lib/keys'
import type { Key } from '../lib/keys'

/** What the keys of a document in hand do. */
export interface DeskKeys {
  save: () => void
  undo: () => void
  redo: () => void
}

/** Saving, undo and redo by key, also out of a field; the rest only where no field, list or sheet has the keys. */
export function useDeskKeys(scope: string, { save, undo, redo }: DeskKeys, others: readonly Key[] = []) {
  useKeys(scope, [
    { key: 'mod+s', words: 'Save', always: true, run: save },
    { key: 's', words: 'Save', run: save },
    { key: 'mod+z', words: 'Undo', always: true, run: undo },
    { key: ['mod+shift+z', 'mod+y'], shown: 'Ctrl + Y', words: 'Redo', always: true, run: redo },
    ...others,
  ])
}
