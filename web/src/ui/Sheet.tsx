import { Dialog } from 'radix-ui'
import type { ReactNode } from 'react'
import { useSheetNotice } from './sheetNotice'

interface SheetProps {
  open: boolean
  onOpenChange: (open: boolean) => void
  title: string
  /** One sentence under the title. */
  lead?: ReactNode
  /** For what needs two columns. */
  wide?: boolean
  children: ReactNode
}

/** A smaller tray laid on the tray. */
export function Sheet({ open, onOpenChange, title, lead, wide = false, children }: SheetProps) {
  const notice = useSheetNotice()
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="no-print fixed inset-0 z-40 bg-bench/80" />
        <Dialog.Content
          {...(lead ? {} : { 'aria-describedby': undefined })}
          className={`tray no-print fixed top-1/2 left-1/2 z-50 flex max-h-[92vh] -translate-x-1/2 -translate-y-1/2 flex-col gap-4 overflow-hidden p-6 ${
            wide ? 'w-[min(1120px,96vw)]' : 'w-[min(620px,94vw)]'
          }`}
        >
          <div className="pr-8">
            <Dialog.Title className="font-head text-head leading-tight">{title}</Dialog.Title>
            {lead && <Dialog.Description className="mt-1 text-ink2">{lead}</Dialog.Description>}
          </div>
          {notice}
          {children}
          {/* Last, so that what the sheet is for has the focus first. */}
          <Dialog.Close
            aria-label="Close"
            className="absolute top-3 right-3 flex h-9 w-9 items-center justify-center rounded-lg text-ink2 hover:bg-rim-tint pointer-coarse:h-11 pointer-coarse:w-11"
          >
            <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
              <path d="M2 2L14 14M14 2L2 14" stroke="currentColor" strokeWidth="2" strokeLinecap="round" />
            </svg>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
