import { useCallback, useEffect, useMemo, useReducer } from 'react'

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

/** A run of edits to one field without such a pause is one step of undo. */
const STEP_MS = 1200

/** A document in hand with the ways back and forward. */
export function useHistory<T>(first: T) {
  const [state, dispatch] = useReducer<Past<T>, T, [PastAction<T>]>(pastReducer, first, startPast)
  const document = state.present
  useEffect(() => {
    const timer = window.setTimeout(() => dispatch({ type: 'settle' }), STEP_MS)
    return () => window.clearTimeout(timer)
  }, [document])
  const edit: Edit<T> = useCallback(
    (change, tag) => dispatch(tag === undefined ? { type: 'edit', change } : { type: 'edit', change, tag }),
    [],
  )
  const steps = useMemo(
    () => ({
      settle: () => dispatch({ type: 'settle' }),
      undo: () => dispatch({ type: 'undo' }),
      redo: () => dispatch({ type: 'redo' }),
      /** Puts a document in hand with no way back. */
      load: (next: T) => dispatch({ type: 'load', document: next }),
    }),
    [],
  )
  return { document, edit, ...steps, canUndo: state.past.length > 0, canRedo: state.future.length > 0 }
}

/** The ways back and forward, for whoever offers them. */
export type Steps = Pick<ReturnType<typeof useHistory>, 'undo' | 'redo' | 'canUndo' | 'canRedo'>
