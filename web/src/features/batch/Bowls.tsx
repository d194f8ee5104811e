import { useState } from 'react'
import { asking, useKept } from '../../api/ask'
import type { OwnBowl } from '../../api/client'
import { weighed } from '../../lib/format'
import { readNumber } from '../../lib/number'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { TextField } from '../../ui/TextField'
import type { Say } from './say'

/** The cook's own bowls, as they were weighed in any batch. */
export function useBowls() {
  return useKept(asking('get', '/api/bowls', {}))
}

interface BowlsProps {
  /** What the empty bowl on the scale weighs now, g; null while nothing says so. */
  onScale: number | null
  /** The line begins in this bowl. */
  onUse?: (bowl: OwnBowl) => void
  onSay: Say
  onClose: () => void
}

/** Bowls by name: weighed once, taken off whatever is in them later. */
export function Bowls({ onScale, onUse, onSay, onClose }: BowlsProps) {
  const bowls = useBowls()
  const [name, setName] = useState('')
  const [typed, setTyped] = useState(onScale === null ? '' : String(onScale))
  const [wrong, setWrong] = useState<string | null>(null)
  /** Those that were said here: the kitchen's answer comes after them. */
  const [said, setSaid] = useState<OwnBowl[]>([])
  const own = (bowls.data ?? []).filter((bowl) => !said.some((other) => other.name === bowl.name))
  const all = [...own, ...said.filter((bowl) => bowl.grams > 0)]
  const remember = (bowl: OwnBowl) => {
    setSaid([...said.filter((other) => other.name !== bowl.name), bowl])
    onSay({ what: 'tared', grams: bowl.grams, bowl: bowl.name })
  }
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && onClose()}
      title="Bowls"
      lead="A bowl is weighed once, empty. After that its weight is taken off what stands on the scale."
    >
      <div className="flex min-h-0 flex-col gap-4 overflow-y-auto">
        {bowls.isError && !bowls.data && (
          <p role="alert" className="text-hot">
            They cannot be read now. {bowls.error?.message}
          </p>
        )}
        {bowls.data && all.length === 0 && <p className="text-lead">No bowl has a name yet.</p>}
        <ul aria-label="Bowls with a name">
          {all.map((bowl) => (
            <li key={bowl.name} className="flex flex-wrap items-center gap-3 border-b border-line py-2">
              <span className="min-w-0 flex-1 text-lead">
                {bowl.name}, <b>{weighed(bowl.grams)} g</b>
              </span>
              {onUse && (
                <Button
                  className="min-h-12"
                  onClick={() => {
                    onUse(bowl)
                    onClose()
                  }}
                >
                  It is in this one<span className="sr-only">: {bowl.name}</span>
                </Button>
              )}
              <Button
                className="min-h-12"
                look="quiet"
                onClick={() => remember({ name: bowl.name, grams: 0 })}
              >
                Forget<span className="sr-only"> {bowl.name}</span>
              </Button>
            </li>
          ))}
        </ul>
        <form
          className="flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault()
            const read = readNumber(typed)
            if (name.trim() === '') return setWrong('Give the bowl a name: what stands on it, its size.')
            if (read.kind !== 'number' || read.value <= 0 || read.value > 200_000)
              return setWrong('Write what the empty bowl weighs, in grams.')
            remember({ name: name.trim(), grams: read.value })
            setName('')
            setTyped('')
            setWrong(null)
          }}
        >
          <TextField label="Another bowl" maxLength={80} value={name} onChange={setName} />
          <TextField label="Empty it weighs, g" maxLength={12} value={typed} onChange={setTyped} />
          <Button className="min-h-12" type="submit">
            Remember it
          </Button>
        </form>
        {onScale !== null && (
          <p className="text-note text-ink2">
            The scale says {weighed(onScale)} g for the bowl that is on it: it must be empty.
          </p>
        )}
        {wrong && (
          <p role="alert" className="text-hot">
            {wrong}
          </p>
        )}
      </div>
    </Sheet>
  )
}
