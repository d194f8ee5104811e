import { useState } from 'react'
import { same } from './same'
import { useFoundDraft } from './useFoundDraft'
import type { Noun } from './drafts'
import type { Opened } from './useSaving'

/** What the kitchen's file has under an address, or what something new begins with; null while it is looked for. */
export type Looked<D> =
  | { saved: D | null; begun: D | null; basedOn: number }
  | { wrong: string; gone: boolean; again: () => void }
  | null

/**
 * Puts a document in hand, with unsaved work on top. What was opened at the first look stays: its own first save
 * changes the address under it.
 */
export function useOpened<D extends object>(
  noun: Noun,
  thing: string | null,
  named: string | null,
  looked: Looked<D>,
): { opened: Opened<D> | null; wrong: { words: string; again: () => void } | null } {
  const found = useFoundDraft(noun, thing, named)
  const [opened, setOpened] = useState<Opened<D> | null>(null)
  if (opened === null && found && looked) {
    const draft = found.draft?.document as D | undefined
    const at = found.draft?.at ?? null
    const { id: draftId, elsewhere } = found
    if (!('wrong' in looked)) {
      const { saved, begun, basedOn } = looked
      const kept = draft && !(saved && same(draft, saved)) ? draft : null
      const document = kept ?? saved ?? begun
      if (document) {
        const from = kept ? (found.draft?.basedOn ?? basedOn) : basedOn
        setOpened({
          draftId,
          thing,
          saved,
          basedOn: from,
          document,
          restored: kept ? at : null,
          elsewhere,
        })
      }
    } else if (draft && !looked.gone) {
      // The file cannot be read just now: the draft is put up as what it is, unsaved, and stays one.
      const basedOn = found.draft?.basedOn ?? 0
      setOpened({ draftId, thing, saved: null, basedOn, document: draft, restored: at, elsewhere })
    }
  }
  const wrong = looked && 'wrong' in looked && found ? { words: looked.wrong, again: looked.again } : null
  return { opened, wrong: opened ? null : wrong }
}
