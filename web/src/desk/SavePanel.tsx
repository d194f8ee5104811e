import { useState } from 'react'
import { Button } from '../ui/Button'
import { ConflictSheet } from './ConflictSheet'
import type { Steps } from './history'
import type { Keeping } from './keeping'
import type { Saving } from './useSaving'
import { VersionsSheet } from './VersionsSheet'

interface SavePanelProps<D extends object, O> {
  /** In one row, for a page whose head it stands in. */
  compact?: boolean
  keeping: Keeping<O>
  saving: Saving<D>
  steps: Steps
  name: string
  /** What the button says that takes an old version in hand. */
  take: string
  compare?: (id: string, revision: number) => string
  /** What the button says that saves something new; as for a version when nothing is said. */
  begin?: string
  /** Whether it cannot be saved as it stands. */
  unfit?: boolean
  /** Whether it stands in a form that saves when it is sent. */
  submits?: boolean
  /** A version as it is held in hand. */
  inHand: (document: O) => D
  /** Puts a document in hand, as one step of undo. */
  onLoad: (document: D) => void
}

/** The strip of tape that says what this is, and the ways to keep it. */
export function SavePanel<D extends object, O>(props: SavePanelProps<D, O>) {
  const { keeping, saving, steps, name, compact = false, inHand } = props
  const { thing: id, basedOn, dirty, state } = saving
  const [history, setHistory] = useState(false)
  const saved = basedOn > 0
  const line = dirty
    ? saved
      ? `changed since version ${basedOn}`
      : 'not saved yet'
    : saved
      ? `version ${basedOn}, saved`
      : 'nothing to save yet'
  const load = (document: O) => props.onLoad(inHand(document))
  return (
    <div className={compact ? 'flex flex-wrap items-center gap-2' : 'mt-2 flex min-w-0 flex-col gap-2'}>
      <div
        className={`tape torn flex items-center justify-between gap-3 px-5 ${compact ? 'max-w-[min(330px,100%)] py-0.5' : 'py-1.5'}`}
      >
        <span className="min-w-0">
          <span className="block truncate font-head text-lead font-[640]">{name || 'No name yet'}</span>
          <span role="status" className="block text-note leading-tight font-[560]">
            {state.kind === 'saving' ? 'saving…' : line}
          </span>
        </span>
        {saved && (
          <button
            type="button"
            className="min-h-9 shrink-0 rounded-md px-2 font-[640] underline"
            onClick={() => setHistory(true)}
          >
            Versions
          </button>
        )}
      </div>
      <div className="flex flex-wrap gap-2">
        <Button
          className="flex-1"
          look={dirty ? 'primary' : 'plain'}
          hotkey="S"
          disabled={state.kind === 'saving' || props.unfit === true}
          {...(props.submits ? { type: 'submit' as const } : { onClick: saving.save })}
        >
          {id === null ? (props.begin ?? 'Save version') : 'Save version'}
        </Button>
        <Button look="plain" className="px-3" disabled={!steps.canUndo} onClick={steps.undo}>
          Undo
        </Button>
        <Button look="plain" className="px-3" disabled={!steps.canRedo} onClick={steps.redo}>
          Redo
        </Button>
      </div>
      {state.kind === 'refused' && (
        <p role="alert" className="text-hot">
          Not saved: {state.words}
        </p>
      )}
      {history && id !== null && (
        <VersionsSheet
          keeping={keeping}
          id={id}
          newest={basedOn}
          take={props.take}
          {...(props.compare && { compare: props.compare })}
          onLoad={load}
          onClose={() => setHistory(false)}
        />
      )}
      {state.kind === 'conflict' && id !== null && (
        <ConflictSheet
          keeping={keeping}
          id={id}
          current={state.current}
          basedOn={basedOn}
          onTheirs={(theirs, revision) => {
            load(theirs)
            saving.buildOn(inHand(theirs), revision)
          }}
          onSaveOnTop={() => saving.saveOnTop(state.current)}
          onSaveAsNew={saving.saveAsNew}
          onClose={saving.settle}
        />
      )}
    </div>
  )
}
