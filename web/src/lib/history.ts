/** A document with the ways back and forward. */
export interface Past<T> {
  past: T[]
  present: T
  future: T[]
  /** Edits with the same tag in a row are one step back. */
  tag: string | null
}

export type PastAction<T> =
  | { type: 'edit'; change: (document: T) => T; tag?: string }
  | { type: 'settle' }
  | { type: 'undo' }
  | { type: 'redo' }
  | { type: 'load'; document: T }

/** Takes a change of a document; edits under one tag are one step of undo. */
export type Edit<T> = (change: (document: T) => T, tag?: string) => void

const MOST_STEPS = 200

export function startPast<T>(document: T): Past<T> {
  return { past: [], present: document, future: [], tag: null }
}

/** Undo and redo over whole documents; a run of edits to one field is one step. */
export function pastReducer<T>(state: Past<T>, action: PastAction<T>): Past<T> {
  switch (action.type) {
    case 'edit': {
      const present = action.change(state.present)
      if (present === state.present) return state
      const tag = action.tag ?? null
      if (tag !== null && tag === state.tag) return { ...state, present, future: [] }
      const past = [...state.past, state.present].slice(-MOST_STEPS)
      return { past, present, future: [], tag }
    }
    case 'settle':
      return state.tag === null ? state : { ...state, tag: null }
    case 'undo': {
      const before = state.past.at(-1)
      if (!before) return state
      return {
        past: state.past.slice(0, -1),
        present: before,
        future: [state.present, ...state.future],
        tag: null,
      }
    }
    case 'redo': {
      const [next, ...future] = state.future
      if (!next) return state
      return { past: [...state.past, state.present], present: next, future, tag: null }
    }
    case 'load':
      return startPast(action.document)
  }
}
