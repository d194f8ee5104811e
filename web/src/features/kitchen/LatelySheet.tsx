import { Link } from 'react-router'
import { asking, useKept } from '../../api/ask'
import { moment, unbroken } from '../../lib/format'
import { Sheet } from '../../ui/Sheet'

/** Where a thing of the audit is looked at; none for what has no page. */
function address(noun: string, key: string): string | null {
  if (noun === 'component') return `/bench/${key}`
  if (noun === 'order') return `/stack/${key}`
  if (noun === 'batch') return `/make/${key}`
  return noun === 'ingredient' || noun === 'pantry' ? `/pantry/${key}` : null
}

/** Who saved what, and when. */
export function LatelySheet({ onClose }: { onClose: () => void }) {
  const done = useKept(asking('get', '/api/audit', { params: { query: { most: 100 } } }))
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && onClose()}
      title="Saved lately"
      lead="What was written into the kitchen’s file, the newest first, and on which device."
    >
      {done.isError && (
        <p role="alert" className="text-hot">
          It cannot be read. {done.error?.message}
        </p>
      )}
      {done.data?.length === 0 && <p>Nothing was saved yet.</p>}
      <ul className="min-h-0 overflow-y-auto">
        {(done.data ?? []).map((each, at) => {
          const to = address(each.noun, each.key)
          return (
            <li key={at} className="border-t border-line py-1.5 first:border-0">
              {to ? (
                <Link
                  className="block font-[560] text-rim underline first-letter:uppercase"
                  to={to}
                  onClick={onClose}
                >
                  {unbroken(each.words)}
                </Link>
              ) : (
                <span className="block font-[560] first-letter:uppercase">{unbroken(each.words)}</span>
              )}
              <span className="text-small text-ink2">
                {moment(each.at)}
                {each.device && `, on ${each.device}`}
              </span>
            </li>
          )
        })}
      </ul>
    </Sheet>
  )
}
