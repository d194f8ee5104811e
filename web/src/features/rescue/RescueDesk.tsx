import { Dialog } from 'radix-ui'
import { useCallback, useMemo, useState } from 'react'
import type { ReactNode } from 'react'
import { Button } from '../../ui/Button'
import { DeskContext } from './desk'
import type { InWork } from './desk'
import { PickFormula } from './PickFormula'
import { RescueBowl } from './RescueBowl'
import { useKeys } from '../../lib/keys'

/** The key that opens it from anywhere, also out of a field. */
export const RESCUE_KEY = 'F8'

/** Rescue, from anywhere: a whole screen for an arm's length. */
export function RescueDesk({ children }: { children: ReactNode }) {
  const [open, setOpen] = useState(false)
  const [work, setWork] = useState<InWork | null>(null)
  const show = useCallback(() => setOpen(true), [])
  const desk = useMemo(() => ({ open: show, tell: setWork }), [show])
  useKeys('Everywhere', [
    { key: RESCUE_KEY.toLowerCase(), words: 'Rescue', always: true, run: () => setOpen((now) => !now) },
  ])
  return (
    <DeskContext.Provider value={desk}>
      {children}
      <Dialog.Root open={open} onOpenChange={setOpen}>
        <Dialog.Portal>
          <Dialog.Content
            aria-describedby={undefined}
            tabIndex={-1}
            onOpenAutoFocus={(event) => {
              // Nothing is pressed by a hand that comes down too early.
              event.preventDefault()
              if (event.currentTarget instanceof HTMLElement) event.currentTarget.focus()
            }}
            className="fixed inset-0 z-40 flex flex-col overflow-y-auto bg-enamel text-lead leading-snug"
          >
            <div className="sticky top-0 z-10 flex items-center gap-4 border-b-[3px] border-hot bg-enamel px-6 py-2">
              <Dialog.Title className="font-head text-display leading-tight font-[720] text-hot">
                Rescue
              </Dialog.Title>
              <span className="min-w-0 flex-1 truncate font-head text-title font-[640]">
                {work?.document.name}
              </span>
              <Button className="min-h-12 text-lead" hotkey="Esc" onClick={() => setOpen(false)}>
                Back to work
              </Button>
            </div>
            {work ? <RescueBowl work={work} /> : <PickFormula />}
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
    </DeskContext.Provider>
  )
}
