import { Popover } from 'radix-ui'
import { useState } from 'react'
import { Link } from 'react-router'
import { moment } from '../../lib/format'
import { matches, useComponents } from './queries'
import { TextField } from '../../ui/TextField'

/** All components, a click away from the Bench. */
export function LibraryMenu() {
  const [open, setOpen] = useState(false)
  const [sought, setSought] = useState('')
  const components = useComponents()
  const wanted = sought.trim().toLowerCase()
  const found = (components.data ?? []).filter((each) => !each.archived && matches(each, wanted))
  const close = () => {
    setOpen(false)
    setSought('')
  }
  return (
    <Popover.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next)
        if (next) void components.refetch()
      }}
    >
      <Popover.Trigger className="my-1 min-h-8 rounded-lg px-2 font-[640] whitespace-nowrap text-rim hover:bg-rim-tint">
        Open<span className="max-[1500px]:sr-only"> a formula</span>
      </Popover.Trigger>
      <Link
        to="/new"
        className="my-1 inline-flex min-h-8 items-center rounded-lg px-2 font-[640] text-rim hover:bg-rim-tint"
      >
        New
      </Link>
      <Popover.Portal>
        <Popover.Content
          sideOffset={8}
          align="start"
          aria-label="Formulas"
          className="tray z-50 flex max-h-[76vh] w-[420px] max-w-[94vw] flex-col gap-3 p-4"
        >
          <TextField
            inline
            label="Find a formula"
            type="search"
            placeholder="Find a formula"
            value={sought}
            onChange={setSought}
          />
          <ul className="min-h-0 flex-1 overflow-y-auto">
            {found.map((each) => (
              <li key={each.id} className="border-t border-line first:border-0">
                <Link
                  to={`/bench/${each.id}`}
                  onClick={close}
                  className="flex min-h-11 flex-col justify-center rounded-md px-2 py-1.5 hover:bg-rim-tint"
                >
                  <span className="font-[640]">{each.name}</span>
                  <span className="text-small text-ink2">
                    {each.family_word}, to {each.job}, version {each.revision}, saved {moment(each.saved_at)}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
          {components.isError && (
            <p className="text-hot">The list cannot be read: {components.error?.message}</p>
          )}
          {components.data && found.length === 0 && (
            <p className="text-ink2">
              {wanted ? `Nothing is called “${sought.trim()}”.` : 'Nothing is saved yet.'}
            </p>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
