import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
import type { Keeping } from './keeping'
import { useTakeVersion } from './useTakeVersion'

interface ConflictSheetProps<D> {
  keeping: Keeping<D>
  id: string
  current: number
  basedOn: number
  onTheirs: (document: D, revision: number) => void
  onSaveOnTop: () => void
  onSaveAsNew: () => void
  onClose: () => void
}

/** Two cooks changed the same thing: nothing was written, and the choice is theirs. */
export function ConflictSheet<D>(props: ConflictSheetProps<D>) {
  const { keeping, id, current, basedOn, onTheirs, onSaveOnTop, onSaveAsNew, onClose } = props
  const { take, failed } = useTakeVersion(keeping, id, onTheirs, onClose)
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
        <Button onClick={onSaveAsNew}>Save mine as a new {keeping.noun}</Button>
        <Button onClick={() => void take(current)}>Look at theirs; undo brings mine back</Button>
        {failed && (
          <p role="alert" className="text-hot">
            {failed}
          </p>
        )}
      </div>
    </Sheet>
  )
}
