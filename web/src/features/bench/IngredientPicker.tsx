import { Popover } from 'radix-ui'
import { useId, useRef, useState } from 'react'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import type { IngredientEntry } from '../../api/client'
import { useIngredients } from '../../lib/ingredients'
import { entriesOf, madeOf } from '../../lib/madeHere'
import { matches, useComponents } from '../library/queries'
import { useOnTheBench } from './inHand'
import { Bowl } from '../../ui/Bowl'
import { TinyBar } from '../../ui/phases'

interface IngredientPickerProps {
  id?: string
  /** What the button does, for those who cannot see where it stands. */
  label: string
  onPick: (entry: IngredientEntry) => void
  /** Where the focus goes once something was picked; back to the button when not given. */
  focusAfterPick?: () => void
  className: string
  children: ReactNode
}

const MOST = 40
/** Most of what is made here, above the pantry. */
const MOST_MADE = 8

/** An entry of the list; what is made here may be barred, with the reason. */
interface Offer {
  entry: IngredientEntry
  made: boolean
  barred: string | null
}

/** Components of this kitchen that answer what was typed; those that would go into themselves are barred. */
function useMadeHere(wanted: string): Offer[] {
  const components = useComponents()
  const onBench = useOnTheBench()
  if (wanted === '') return []
  const all = components.data ?? []
  const barred = onBench === null ? new Set<string>() : madeOf(onBench, all)
  return all
    .filter((each) => !each.archived && matches(each, wanted))
    .slice(0, MOST_MADE)
    .flatMap((each) =>
      entriesOf(each).map((entry) => ({
        entry,
        made: true,
        barred: !barred.has(each.id)
          ? null
          : each.id === onBench
            ? 'this very formula'
            : 'has this one in it already',
      })),
    )
}

/** Entries that have every word typed in one of their names; names that begin with them first. */
function plain(pantry: IngredientEntry[], typed: string): IngredientEntry[] {
  const phrase = typed.toLowerCase()
  const words = phrase.split(/\s+/).filter(Boolean)
  const found = pantry.filter((entry) => {
    const text = `${entry.name} ${entry.also.join(' ')} ${entry.group}`.toLowerCase()
    return words.every((word) => text.includes(word))
  })
  const rank = (entry: IngredientEntry) =>
    [entry.name, ...entry.also].some((name) => name.toLowerCase().startsWith(phrase)) ? 0 : 1
  return found.sort((a, b) => rank(a) - rank(b))
}

/** Picks an ingredient by typing: arrows move, Enter takes, Escape leaves. */
export function IngredientPicker(props: IngredientPickerProps) {
  const { id, label, onPick, focusAfterPick, className, children } = props
  const picked = useRef(false)
  const [open, setOpen] = useState(false)
  const [typed, setTyped] = useState('')
  const [at, setAt] = useState(0)
  const list = useId()
  const wanted = typed.trim()
  const all = useIngredients()
  const pantry = useIngredients(wanted)
  // The server forgives slips and knows more names; until it answers, plain words will do.
  const bought = pantry.current && pantry.data ? pantry.data : plain(all.data ?? [], wanted)
  const made = useMadeHere(wanted)
  const offered = bought.map((entry): Offer => ({ entry, made: false, barred: null }))
  // What begins with the words stands first, bought or made.
  const first = (offer: Offer) => offer.entry.name.toLowerCase().startsWith(wanted.toLowerCase())
  const found = [
    ...made.filter(first),
    ...offered.slice(0, 1).filter(() => wanted !== ''),
    ...made.filter((offer) => !first(offer)),
    ...(wanted === '' ? offered : offered.slice(1)),
  ].slice(0, MOST)
  const active = found[Math.min(at, found.length - 1)]
  const pick = (offer: Offer | undefined) => {
    if (!offer || offer.barred) return
    picked.current = true
    setOpen(false)
    onPick(offer.entry)
  }
  const show = (to: number) => {
    setAt(to)
    window.requestAnimationFrame(() =>
      window.document.getElementById(`${list}-${to}`)?.scrollIntoView({ block: 'nearest' }),
    )
  }
  return (
    <Popover.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next)
        if (next) {
          picked.current = false
          setTyped('')
          setAt(0)
        }
      }}
    >
      <Popover.Trigger id={id} className={className} aria-label={id ? undefined : label}>
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          aria-label={label}
          onCloseAutoFocus={(event) => {
            if (!picked.current || !focusAfterPick) return
            event.preventDefault()
            focusAfterPick()
          }}
          className="tray z-50 flex max-h-[420px] w-[380px] max-w-[94vw] flex-col gap-2 p-3"
        >
          <input
            role="combobox"
            aria-label={label}
            aria-expanded="true"
            aria-controls={list}
            aria-activedescendant={active ? `${list}-${Math.min(at, found.length - 1)}` : undefined}
            autoComplete="off"
            placeholder="Type a name: dark, honey, or a cream of yours…"
            className="min-h-10 rounded-lg border border-line2 bg-enamel px-3"
            value={typed}
            onChange={(event) => {
              setTyped(event.target.value)
              setAt(0)
            }}
            onKeyDown={(event) => {
              if (event.key === 'ArrowDown') {
                event.preventDefault()
                show(Math.min(found.length - 1, at + 1))
              }
              if (event.key === 'ArrowUp') {
                event.preventDefault()
                show(Math.max(0, at - 1))
              }
              if (event.key === 'Enter') {
                event.preventDefault()
                pick(active)
              }
            }}
          />
          <ul
            id={list}
            role="listbox"
            aria-label="Ingredients found"
            className="min-h-0 flex-1 overflow-y-auto"
          >
            {found.map((offer, k) => (
              <li
                key={offer.entry.ingredient}
                id={`${list}-${k}`}
                role="option"
                aria-selected={offer === active}
                aria-disabled={offer.barred !== null}
                onPointerMove={() => setAt(k)}
                onClick={() => pick(offer)}
                className={`flex min-h-10 items-center gap-2 rounded-md px-2 pointer-coarse:min-h-11 ${
                  offer === active ? 'bg-rim-tint' : ''
                } ${offer.barred ? 'text-ink2' : 'cursor-pointer'}`}
              >
                <span className="min-w-0 flex-1 leading-tight">
                  <span className="block truncate">{offer.entry.name}</span>
                  {(offer.barred ?? offer.entry.also.length > 0) && (
                    <span className="block truncate text-small text-ink2">
                      {offer.barred ?? offer.entry.also.join(', ')}
                    </span>
                  )}
                </span>
                {offer.made ? (
                  <span className="inline-flex items-center gap-1 text-small font-[640]">
                    <Bowl />
                    made here
                  </span>
                ) : (
                  <TinyBar shares={offer.entry.phases_percent} full={100} width={80} />
                )}
              </li>
            ))}
          </ul>
          {pantry.data && found.length === 0 && (
            <p className="px-2 text-ink2">
              Nothing in the pantry and nothing made here is called “{typed.trim()}”.{' '}
              <Link className="font-[640] text-rim underline" to="/pantry/new">
                Add it from its label
              </Link>
            </p>
          )}
          {pantry.isError && (
            <p className="px-2 text-hot">The pantry cannot be read: {pantry.error?.message}</p>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
