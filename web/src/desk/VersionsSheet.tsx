import { Link } from 'react-router'
import { useKept } from '../api/ask'
import { moment, unbroken } from '../lib/format'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
import type { Keeping } from './keeping'
import { useTakeVersion } from './useTakeVersion'

interface VersionsSheetProps<D> {
  keeping: Keeping<D>
  id: string
  /** The version that is in hand. */
  newest: number
  /** What the button says that takes an old one in hand. */
  take: string
  /** Where two versions are set side by side, if anywhere. */
  compare?: (id: string, revision: number) => string
  onLoad: (document: D) => void
  onClose: () => void
}

/** Every version with what changed in it; an old one can be taken in hand. */
export function VersionsSheet<D>(props: VersionsSheetProps<D>) {
  const { keeping, id, newest, take, compare, onLoad, onClose } = props
  const versions = useKept(keeping.versions(id))
  const { take: put, failed } = useTakeVersion(keeping, id, onLoad, onClose)
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && onClose()}
      title="Versions"
      lead="Every save is kept. Taking an old one in hand changes nothing until you save it; undo takes it back."
    >
      <ul className="min-h-0 overflow-y-auto">
        {(versions.data ?? []).map((each) => (
          <li
            key={each.revision}
            className="flex min-h-12 flex-wrap items-start gap-x-3 gap-y-1 border-t border-line py-1.5 first:border-0"
          >
            <b className="w-24">Version {each.revision}</b>
            <span className="min-w-0 flex-1 basis-52">
              <span className="block truncate">{each.name}</span>
              <span className="block text-small text-ink2">
                {moment(each.saved_at)}
                {each.saved_by && `, on ${each.saved_by}`}
              </span>
              {each.changed.length > 0 && (
                <ul aria-label={`What changed in version ${each.revision}`} className="mt-0.5 text-note">
                  {each.changed.map((words) => (
                    <li key={words}>{unbroken(words)}</li>
                  ))}
                </ul>
              )}
            </span>
            {each.revision !== newest && compare && (
              <Link
                className="inline-flex min-h-9 items-center font-[640] text-rim underline pointer-coarse:min-h-11"
                to={compare(id, each.revision)}
              >
                Compare
              </Link>
            )}
            <Button onClick={() => void put(each.revision)}>
              {each.revision === newest ? 'Back to this' : take}
            </Button>
          </li>
        ))}
      </ul>
      {(failed ?? versions.error) && (
        <p role="alert" className="text-hot">
          {failed ?? versions.error?.message}
        </p>
      )}
    </Sheet>
  )
}
