import { Button } from './Button'

interface AskFirstProps {
  /** "brings milk, an allergen". */
  asks: string[]
  onYes: () => void
  onNo: () => void
}

/** What a change brings that was not there: said, and asked for plainly, before it is made. */
export function AskFirst({ asks, onYes, onNo }: AskFirstProps) {
  return (
    <div
      role="alert"
      className="my-1 flex flex-wrap items-center gap-2 rounded-lg border-2 border-hot px-3 py-1.5"
    >
      <span className="min-w-0 flex-1 font-[640] text-hot">It {asks.join(', and ')}. May it go in?</span>
      <Button className="px-3" onClick={onYes}>
        Yes, use it
      </Button>
      <Button className="px-3" look="quiet" onClick={onNo}>
        No
      </Button>
    </div>
  )
}
