import { useCallback, useEffect, useRef, useState, useSyncExternalStore } from 'react'
import { OfflineError, ProblemError } from '../api/client'
import type { Fault } from '../api/client'
import { draftChanges, dropDraft, onDrafts, putDraft, somethingHeld } from './drafts'
import type { Keeping } from './keeping'
import { same } from './same'
import { listen, nameOf, showOpen, TAB_ID, tellSaved } from './tabs'

/** A document as it was put in hand. */
export interface Opened<D> {
  /** Under which work on it is kept on the device. */
  draftId: string
  /** Its key; none for something new. */
  thing: string | null
  /** As it stands in the kitchen's file; none when that could not be read, or nothing stands there yet. */
  saved: D | null
  basedOn: number
  document: D
  /** When unsaved work was found again, if it was. */
  restored: string | null
  /** Whether it is open in another tab too. */
  elsewhere: boolean
}

export type SaveState =
  | { kind: 'idle' }
  | { kind: 'saving' }
  | { kind: 'saved'; revision: number }
  | { kind: 'refused'; words: string; faults: Fault[] }
  | { kind: 'conflict'; current: number }

/** Whether this device keeps what is not saved; false while the page alone holds some of it. */
export function useKeepsDrafts(): boolean {
  useSyncExternalStore(onDrafts, draftChanges)
  return !somethingHeld()
}

function refusal(error: unknown, taken: string | null): SaveState {
  if (error instanceof ProblemError && error.problem.status === 409) {
    if (taken === null) return { kind: 'conflict', current: error.problem.current_revision ?? 0 }
    return { kind: 'refused', words: taken, faults: [{ field: 'name', code: 'key_twice', message: taken }] }
  }
  if (error instanceof ProblemError) {
    const faults = error.problem.errors ?? []
    return { kind: 'refused', words: faults[0]?.message ?? error.problem.detail, faults }
  }
  if (!(error instanceof OfflineError)) {
    return { kind: 'refused', words: 'something went wrong here; try again.', faults: [] }
  }
  return {
    kind: 'refused',
    faults: [],
    words: somethingHeld()
      ? 'the server is not answering, and this device cannot keep your work. Leave this page open, and save again when it is back.'
      : 'the server is not answering. It is kept on this device; save again when it is back.',
  }
}

/**
 * Keeps a document in hand: on this device while it is not saved, in the kitchen's file when it is.
 *
 * `document` is what is in hand, `outgoing` what is sent of it. `onBorn` is told the key of something new and must
 * keep what is in hand in place.
 */
export function useSaving<D extends object, O>(
  keeping: Keeping<O>,
  opened: Opened<D>,
  document: D,
  outgoing: O,
  onBorn: (id: string) => void,
) {
  const { draftId } = opened
  const [thing, setThing] = useState(opened.thing)
  const [saved, setSaved] = useState(opened.saved)
  const [basedOn, setBasedOn] = useState(opened.basedOn)
  const [state, setState] = useState<SaveState>({ kind: 'idle' })
  const [restored, setRestored] = useState(opened.restored)
  const [elsewhere, setElsewhere] = useState<'open' | number | null>(opened.elsewhere ? 'open' : null)
  const dirty = saved === null || !same(document, saved)
  const name = 'name' in document && typeof document.name === 'string' ? document.name : ''
  const { noun } = keeping

  const [begun] = useState(opened.restored ? null : document)
  useEffect(() => {
    // Something new that nobody touched is nothing to keep.
    const untouched = saved === null && thing === null && begun !== null && same(document, begun)
    if (dirty && !untouched) void putDraft({ id: draftId, noun, thing, basedOn, name, document })
    else if (!dirty) void dropDraft(draftId)
  }, [dirty, draftId, noun, thing, basedOn, name, document, saved, begun])

  const what = thing === null ? null : nameOf(noun, thing)
  useEffect(() => {
    showOpen(what)
    return () => showOpen(null)
  }, [what])
  useEffect(
    () =>
      listen((said) => {
        if (said.kind === 'saved' && said.what === what && said.tab !== TAB_ID) setElsewhere(said.revision)
      }),
    [what],
  )

  const busy = useRef(false)
  const run = useCallback(
    async (how: { on: number } | { fresh: true }) => {
      if (busy.current) return
      busy.current = true
      setState({ kind: 'saving' })
      const fresh = 'fresh' in how || thing === null
      try {
        const kept = fresh ? await keeping.create(outgoing) : await keeping.save(thing, outgoing, how.on)
        // What was typed meanwhile stays in hand and is still to be saved.
        setSaved(document)
        setBasedOn(kept.revision)
        setRestored(null)
        setElsewhere(null)
        setState({ kind: 'saved', revision: kept.revision })
        tellSaved(nameOf(noun, kept.id), kept.revision)
        if (kept.id !== thing) {
          setThing(kept.id)
          onBorn(kept.id)
        }
      } catch (error) {
        setState(refusal(error, fresh ? keeping.taken : null))
      } finally {
        busy.current = false
      }
    },
    [keeping, noun, thing, document, outgoing, onBorn],
  )

  return {
    thing,
    saved,
    basedOn,
    dirty,
    state,
    restored,
    /** "open" in another tab, or saved there as this version. */
    elsewhere,
    save: useCallback(
      () => void run(thing === null ? { fresh: true } : { on: basedOn }),
      [run, thing, basedOn],
    ),
    saveOnTop: (revision: number) => void run({ on: revision }),
    saveAsNew: () => void run({ fresh: true }),
    /** Somebody else's newer version is the one to build on. */
    buildOn: (theirs: D, revision: number) => {
      setSaved(theirs)
      setBasedOn(revision)
    },
    /** Unsaved work was thrown away on purpose. */
    thrownAway: () => {
      setRestored(null)
      setBasedOn(opened.basedOn)
    },
    settle: () => setState({ kind: 'idle' }),
  }
}

/** What keeping a document offers to those who show it. */
export type Saving<D extends object> = ReturnType<typeof useSaving<D, unknown>>
