import { Button } from '../../ui/Button'

/** Takes a row of a form out; undo brings it back. */
export function TakeOut({ what, onClick }: { what: string; onClick: () => void }) {
  return (
    <Button look="quiet" className="px-2" aria-label={`Take out: ${what}`} onClick={onClick}>
      Take out
    </Button>
  )
}
