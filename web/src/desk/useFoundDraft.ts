import { useEffect, useState } from 'react'
import { allDrafts, putDraft } from './drafts'
import type { Draft, Noun } from './drafts'
import { nameOf, newId, otherTabs, TAB_ID } from './tabs'

export interface Found {
  /** Under which work here is kept. */
  id: string
  /** What was found again; none when nothing was. */
  draft: Draft | null
  /** Whether the same is open in another tab just now. */
  elsewhere: boolean
}

async function look(noun: Noun, thing: string | null, asked: string | null): Promise<Found> {
  const drafts = (await allDrafts()).filter((draft) => draft.noun === noun)
  const named = drafts.find((draft) => draft.id === asked) ?? null
  if (thing === null) return { id: asked ?? newId(), draft: named, elsewhere: false }
  const others = await otherTabs()
  const elsewhere = [...others.values()].includes(nameOf(noun, thing))
  const ofThis = drafts.filter((draft) => draft.thing === thing)
  // Mine first; then what a tab left behind that is no more. What another tab has in hand stays with it.
  const found =
    named ??
    ofThis.find((draft) => draft.tab === TAB_ID) ??
    ofThis.find((draft) => !others.has(draft.tab)) ??
    null
  // From now on it is this tab's.
  if (found && found.tab !== TAB_ID) await putDraft(found)
  return { id: found?.id ?? asked ?? newId(), draft: found, elsewhere }
}

/** The unsaved work there is on something, once it was looked for. */
export function useFoundDraft(noun: Noun, thing: string | null, asked: string | null): Found | undefined {
  const [found, setFound] = useState<Found>()
  useEffect(() => {
    let here = true
    void look(noun, thing, asked).then((all) => {
      // What was found at the first look stays: work in hand is not exchanged.
      if (here) setFound((now) => now ?? all)
    })
    return () => {
      here = false
    }
  }, [noun, thing, asked])
  return found
}
