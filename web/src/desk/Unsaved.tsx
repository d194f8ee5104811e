import { useEffect, useState, useSyncExternalStore } from 'react'
import { Link } from 'react-router'
import { moment } from '../lib/format'
import { fileName, saveAs } from '../lib/save'
import { Button } from '../ui/Button'
import { allDrafts, draftChanges, dropDraft, onDrafts } from './drafts'
import type { Draft, Noun } from './drafts'
import { listen, TAB_ID } from './tabs'
import { useKeepsDrafts } from './useSaving'

/** Where unsaved work is taken in hand again. */
export function draftAddress(draft: Draft): string {
  const query = `draft=${draft.id}`
  if (draft.noun === 'formula') return `/bench/${draft.thing ?? 'new'}?${query}`
  if (draft.noun === 'room') return `/day/room?${query}`
  if (draft.noun === 'order') return `/stack/${draft.thing ?? 'new'}?${query}`
  return draft.thing ? `/pantry/${draft.thing}?edit=1&${query}` : `/pantry/new?${query}`
}

/** All unsaved work of this device, looked at again whenever any tab changes some. */
export function useDrafts(noun?: Noun): Draft[] {
  const changes = useSyncExternalStore(onDrafts, draftChanges)
  const [drafts, setDrafts] = useState<Draft[]>([])
  const [heard, setHeard] = useState(0)
  useEffect(() => listen((said) => said.kind === 'drafts' && setHeard((count) => count + 1)), [])
  useEffect(() => {
    let here = true
    void allDrafts().then((all) => {
      if (here) setDrafts(noun ? all.filter((draft) => draft.noun === noun) : all)
    })
    return () => {
      here = false
    }
  }, [changes, heard, noun])
  return drafts
}

const WORD: Record<Noun, string> = {
  formula: 'formula',
  order: 'order',
  ingredient: 'ingredient',
  room: 'pastry room',
  plan: 'plan',
}

/** A draft as a file anybody can keep: the document as it stood, or the form as it was filled in. */
export function saveDraft(draft: Draft) {
  const text = `${JSON.stringify(draft.document, null, 2)}\n`
  saveAs(`${fileName(draft.name, draft.noun)}-unsaved.json`, 'application/json', text)
}

/** What is not saved on this device, on the pages where work begins. */
export function Unsaved({ noun }: { noun?: Noun }) {
  const drafts = useDrafts(noun)
  const keeps = useKeepsDrafts()
  const [asked, setAsked] = useState<string | null>(null)
  if (drafts.length === 0) return null
  return (
    <section aria-label="Unsaved on this device" className="rounded-lg border-2 border-line2 px-4 py-2">
      <h2 className="text-title">Unsaved on this device</h2>
      {!keeps && (
        <p role="status" className="text-hot">
          This device cannot keep all of it: its storage is full or forbidden. Do not close this page before
          it is saved.
        </p>
      )}
      <ul>
        {drafts.map((draft) => (
          <li
            key={draft.id}
            className="flex flex-wrap items-center gap-x-4 border-t border-line py-1 first:border-0"
          >
            <Link to={draftAddress(draft)} className="min-h-9 min-w-[200px] flex-1 content-center">
              <b className="text-rim underline">
                {draft.name.trim() || `A ${WORD[draft.noun]} without a name`}
              </b>
              <span className="ml-3 text-note text-ink2">
                {draft.thing === null ? 'new' : `changed since version ${draft.basedOn}`}, {moment(draft.at)}
                {draft.tab === TAB_ID ? '' : ', in another tab'}
              </span>
            </Link>
            {asked === draft.id ? (
              <span className="flex items-center gap-2">
                Throw it away for good?
                <Button className="px-3" onClick={() => void dropDraft(draft.id)}>
                  Yes, throw it away
                </Button>
                <Button className="px-3" look="quiet" onClick={() => setAsked(null)}>
                  Keep it
                </Button>
              </span>
            ) : (
              <span className="flex items-center gap-1">
                <Button className="px-3" look="quiet" onClick={() => saveDraft(draft)}>
                  As a file
                </Button>
                <Button className="px-3" look="quiet" onClick={() => setAsked(draft.id)}>
                  Throw away
                </Button>
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
