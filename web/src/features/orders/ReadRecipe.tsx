import type { FormulaDocument, ReadLine } from '../../api/client'
import { unbroken } from '../../lib/format'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'

interface ReadRecipeProps {
  document: FormulaDocument
  lines: ReadLine[]
  keeping: boolean
  wrong: string | null
  onKeep: () => void
  onLeave: () => void
}

/** Somebody else's recipe, line by line as it stood beside what was made of it: looked over before it is kept. */
export function ReadRecipe({ document, lines, keeping, wrong, onKeep, onLeave }: ReadRecipeProps) {
  const open = lines.filter((line) => line.line == null).length
  return (
    <Sheet
      open
      onOpenChange={(now) => !now && onLeave()}
      title={document.name?.trim() ? document.name : 'A recipe from a file'}
      lead={
        open === 0
          ? 'Look it over: every line was taken as it stands beside it. Nothing is kept yet.'
          : `${open} of ${lines.length} lines were not understood and are left out. Nothing is kept yet.`
      }
    >
      <table className="min-h-0 w-full text-left">
        <thead className="text-small text-ink2">
          <tr>
            <th>As it stood</th>
            <th className="pl-4">Taken as</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line, at) => (
            <tr key={at} className="border-t border-line align-baseline">
              <td className="py-1">{line.text}</td>
              <td className={`pl-4 font-[640] ${line.taken_as == null ? 'text-hot' : ''}`}>
                {line.taken_as == null ? 'left out: not understood' : unbroken(line.taken_as)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {wrong && (
        <p role="alert" className="text-hot">
          {wrong}
        </p>
      )}
      <div className="flex gap-3 pt-2">
        <Button look="primary" disabled={keeping} onClick={onKeep}>
          {open === 0 ? 'Keep it' : `Keep the ${lines.length - open} that were understood`}
        </Button>
        <Button onClick={onLeave}>Leave it</Button>
      </div>
    </Sheet>
  )
}
