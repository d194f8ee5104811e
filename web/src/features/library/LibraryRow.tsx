import { DropdownMenu } from 'radix-ui'
import { useId, useState } from 'react'
import { Link } from 'react-router'
import type { ComponentSummary } from '../../api/client'
import { moment } from '../../lib/format'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { Tick } from '../../ui/Tick'

interface LibraryRowProps {
  component: ComponentSummary
  /** Tags known in this kitchen, offered while typing. */
  tags: string[]
  chosen: boolean
  onChoose: (on: boolean) => void
  onDuplicate: () => void
  onPlace: (change: { tags?: string[]; archived?: boolean }) => void
}

const item =
  'flex min-h-9 cursor-pointer items-center rounded-md px-3 outline-none select-none data-[highlighted]:bg-rim-tint pointer-coarse:min-h-11'

/** One formula of the library. */
export function LibraryRow({ component, tags, chosen, onChoose, onDuplicate, onPlace }: LibraryRowProps) {
  const [tagging, setTagging] = useState(false)
  const { id, name, archived } = component
  return (
    <li className="flex min-h-12 flex-wrap items-center gap-x-3 gap-y-1 border-b border-line py-1">
      <Tick className="pr-1" label={`Compare ${name}`} checked={chosen} onChange={onChoose} />
      <Link
        to={`/bench/${id}`}
        className={`min-w-56 flex-1 truncate text-lead font-[640] hover:underline ${archived ? 'text-ink2' : ''}`}
      >
        {name}
        {archived && <span className="text-note font-[450]"> (put away)</span>}
      </Link>
      <span className="w-72 text-note text-ink2 max-tablet:w-full">
        {component.family_word}, to {component.job === 'nappe' ? 'coat the spoon' : component.job}
      </span>
      <span className="flex w-56 flex-wrap gap-1.5 text-small">
        {component.tags.map((tag) => (
          <span key={tag} className="tape torn px-2.5 py-0.5 font-[560]">
            {tag}
          </span>
        ))}
      </span>
      <span className="w-44 text-right text-small text-ink2">
        version {component.revision}, {moment(component.saved_at)}
      </span>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          aria-label={`More for ${name}`}
          className="h-9 w-9 rounded-md text-lead leading-none text-ink2 hover:bg-rim-tint pointer-coarse:h-11 pointer-coarse:w-11"
        >
          ⋯
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="end" className="tray z-50 min-w-52 p-2">
            <DropdownMenu.Item className={item} onSelect={onDuplicate}>
              Duplicate
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} onSelect={() => setTagging(true)}>
              Tags…
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} asChild>
              <a href={`/api/components/${id}/export`} download>
                Save as a file
              </a>
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} asChild>
              <a href={`/api/components/${id}/export?form=recipe`} download>
                Save as a recipe
              </a>
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} onSelect={() => onPlace({ archived: !archived })}>
              {archived ? 'Take out again' : 'Put away'}
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {tagging && (
        <TagSheet
          name={name}
          now={component.tags}
          known={tags}
          onClose={() => setTagging(false)}
          onTags={(next) => {
            onPlace({ tags: next })
            setTagging(false)
          }}
        />
      )}
    </li>
  )
}

interface TagSheetProps {
  name: string
  now: string[]
  known: string[]
  onClose: () => void
  onTags: (tags: string[]) => void
}

function TagSheet({ name, now, known, onClose, onTags }: TagSheetProps) {
  const [text, setText] = useState(now.join(', '))
  const id = useId()
  const tags = [
    ...new Set(
      text
        .split(',')
        .map((tag) => tag.trim())
        .filter(Boolean),
    ),
  ]
  const long = tags.find((tag) => tag.length > 40)
  const bad = long !== undefined || tags.length > 20
  const unused = known.filter((tag) => !tags.includes(tag))
  return (
    <Sheet open onOpenChange={(open) => !open && onClose()} title={`Tags of ${name}`}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          if (!bad) onTags(tags)
        }}
      >
        <label htmlFor={id} className="flex flex-col gap-1">
          Words parted by commas
          <input
            id={id}
            autoComplete="off"
            className={`min-h-10 rounded-lg border bg-enamel px-2 ${bad ? 'border-hot' : 'border-line2'}`}
            aria-invalid={bad ? true : undefined}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          {bad && (
            <span className="text-small text-hot">
              {long ? 'A tag has at most 40 letters.' : 'At most 20 tags.'}
            </span>
          )}
        </label>
        {unused.length > 0 && (
          <p className="flex flex-wrap gap-2">
            <span className="text-ink2">Used here:</span>
            {unused.map((tag) => (
              <button
                key={tag}
                type="button"
                className="rounded-md bg-well px-2 py-0.5 hover:bg-rim-tint pointer-coarse:min-h-11"
                onClick={() => setText([...tags, tag].join(', '))}
              >
                + {tag}
              </button>
            ))}
          </p>
        )}
        <div className="flex gap-3">
          <Button type="submit" look="primary" disabled={bad}>
            Tag it
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Sheet>
  )
}
