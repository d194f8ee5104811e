import { useState } from 'react'
import { Link } from 'react-router'
import { useKept } from '../api/ask'
import type { Asked } from '../api/ask'
import type { RevisionSummary } from '../api/client'
import type { useSaving } from '../desk/useSaving'
import { moment } from '../lib/format'
import { Button } from './Button'
import { Sheet } from './Sheet'

/** Where the versions of a document are kept. */
export interface Versions<T> {
  /** What it is: "formula", "order". */
  noun: string
  list: (id: string) => Asked<RevisionSummary[]>
  read: (id: string, revision: number) => Promise<{ document: T; revision: number }>
  /** Where two versions are set side by side, if anywhere. */
  compare?: (id: string, revision: number) => string
  /** What the button says that takes an old one in hand. */
  take: string
}

interface SavePanelProps<T extends object> {
  /** In one row, for a page whose head it stands in. */
  compact?: boolean
  versions: Versions<T>
  saving: ReturnType<typeof useSaving<T>>
  name: string
  canUndo: boolean
  canRedo: boolean
  onUndo: () => void
  onRedo: () => void
  /** Puts a document in hand, as one step of undo. */
  onLoad: (document: T) => void
}

/** The strip of tape that says what this is, and the ways to keep it. */
export function SavePanel<T extends object>(props: SavePanelProps<T>) {
  const { saving, name, compact = false } = props
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
  return (
    <div className={compact ? 'flex flex-wrap items-center gap-2' : 'mt-2 flex flex-col gap-2'}>
      <div
        className={`tape torn flex items-center justify-between gap-3 px-5 ${compact ? 'max-w-[330px] py-0.5' : 'py-1.5'}`}
      >
        <span className="min-w-0">
          <span className="block truncate font-head text-[17px] font-[640]">{name || 'No name yet'}</span>
          <span role="status" className="block text-[14px] leading-tight font-[560]">
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
      <div className="flex gap-2">
        <Button
          className="flex-1"
          look={dirty ? 'primary' : 'plain'}
          hotkey="S"
          disabled={state.kind === 'saving'}
          onClick={saving.save}
        >
          Save version
        </Button>
        <Button look="plain" className="px-3" disabled={!props.canUndo} onClick={props.onUndo}>
          Undo
        </Button>
        <Button look="plain" className="px-3" disabled={!props.canRedo} onClick={props.onRedo}>
          Redo
        </Button>
      </div>
      {state.kind === 'refused' && (
        <p role="alert" className="text-hot">
          Not saved: {state.words}
        </p>
      )}
      {id !== null && (
        <History
          versions={props.versions}
          id={id}
          open={history}
          onOpenChange={setHistory}
          onLoad={props.onLoad}
          newest={basedOn}
        />
      )}
      {state.kind === 'conflict' && id !== null && (
        <Conflict
          versions={props.versions}
          id={id}
          current={state.current}
          basedOn={basedOn}
          onTheirs={(theirs, revision) => {
            props.onLoad(theirs)
            saving.buildOn(theirs, revision)
          }}
          onSaveOnTop={() => saving.saveOnTop(state.current)}
          onSaveAsNew={saving.saveAsNew}
          onClose={saving.settle}
        />
      )}
    </div>
  )
}

interface HistoryProps<T> {
  versions: Versions<T>
  id: string
  open: boolean
  newest: number
  onOpenChange: (open: boolean) => void
  onLoad: (document: T) => void
}

function History<T>({ versions, id, open, newest, onOpenChange, onLoad }: HistoryProps<T>) {
  const revisions = useKept(versions.list(id), { on: open })
  const [failed, setFailed] = useState<string | null>(null)
  const put = async (revision: number) => {
    try {
      const kept = await versions.read(id, revision)
      onLoad(kept.document)
      onOpenChange(false)
    } catch (error) {
      setFailed(error instanceof Error ? error.message : 'It cannot be read.')
    }
  }
  return (
    <Sheet
      open={open}
      onOpenChange={onOpenChange}
      title="Versions"
      lead="Every save is kept. Taking an old one in hand changes nothing until you save it; undo takes it back."
    >
      <ul className="min-h-0 overflow-y-auto">
        {(revisions.data ?? []).map((each) => (
          <li
            key={each.revision}
            className="flex min-h-12 items-center gap-3 border-t border-line first:border-0"
          >
            <b className="w-24">Version {each.revision}</b>
            <span className="min-w-0 flex-1">
              <span className="block truncate">{each.name}</span>
              <span className="text-[13px] text-ink2">{moment(each.saved_at)}</span>
            </span>
            {each.revision !== newest && versions.compare && (
              <Link className="font-[640] text-rim underline" to={versions.compare(id, each.revision)}>
                Compare
              </Link>
            )}
            <Button onClick={() => void put(each.revision)}>
              {each.revision === newest ? 'Back to this' : versions.take}
            </Button>
          </li>
        ))}
      </ul>
      {(failed ?? revisions.error) && (
        <p role="alert" className="text-hot">
          {failed ?? revisions.error?.message}
        </p>
      )}
    </Sheet>
  )
}

interface ConflictProps<T> {
  versions: Versions<T>
  id: string
  current: number
  basedOn: number
  onTheirs: (document: T, revision: number) => void
  onSaveOnTop: () => void
  onSaveAsNew: () => void
  onClose: () => void
}

/** Two cooks changed the same formula: nothing was written, and the choice is theirs. */
function Conflict<T>({
  versions,
  id,
  current,
  basedOn,
  onTheirs,
  onSaveOnTop,
  onSaveAsNew,
  onClose,
}: ConflictProps<T>) {
  const [failed, setFailed] = useState<string | null>(null)
  const look = async () => {
    try {
      const theirs = await versions.read(id, current)
      onTheirs(theirs.document, theirs.revision)
      onClose()
    } catch (error) {
      setFailed(error instanceof Error ? error.message : 'It cannot be read.')
    }
  }
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && onClose()}
      title={`Version ${current} was saved by somebody else`}
      lead={`You started from version ${basedOn}. Nothing was overwritten; both stay in the history whatever you choose.`}
    >
      <div className="flex flex-col gap-2">
        <Button look="primary" onClick={onSaveOnTop}>
          Save mine as version {current + 1}
        </Button>
        <Button onClick={onSaveAsNew}>Save mine as a new {versions.noun}</Button>
        <Button onClick={() => void look()}>Look at theirs; undo brings mine back</Button>
        {failed && (
          <p role="alert" className="text-hot">
            {failed}
          </p>
        )}
      </div>
    </Sheet>
  )
}
