import { Button } from '../../ui/Button'
import { moment } from '../../lib/format'
import { useFamily } from '../../lib/families'
import type { BenchDocument } from './document'
import { FamilySwitch } from './FamilySwitch'

interface TitleProps {
  document: BenchDocument
  edit: (change: (document: BenchDocument) => BenchDocument, tag?: string) => void
  restored: string | null
  onThrowAway: () => void
}

export function Title({ document, edit, restored, onThrowAway }: TitleProps) {
  const family = useFamily(document.family)
  return (
    <div className="min-w-0">
      <h1 className="sr-only">{document.name || 'New formula'}</h1>
      <input
        aria-label="Name of the formula"
        placeholder={`Name this ${family?.word ?? 'formula'}`}
        maxLength={120}
        autoComplete="off"
        className="-ml-1.5 w-full truncate rounded-md border border-transparent bg-transparent px-1.5 font-head text-[29px] leading-[1.15] font-[720] tracking-[-0.01em] placeholder:text-ink3 hover:border-line focus:border-line2"
        value={document.name}
        onChange={(event) => {
          const name = event.target.value
          edit((d) => ({ ...d, name }), 'name')
        }}
      />
      <div className="flex items-baseline gap-2">
        <FamilySwitch document={document} edit={edit} />
        <input
          aria-label="Note"
          placeholder="Add a note"
          maxLength={4000}
          autoComplete="off"
          className="min-w-0 flex-1 truncate rounded-md border border-transparent bg-transparent px-1.5 text-ink2 placeholder:text-ink3 hover:border-line focus:border-line2"
          value={document.note ?? ''}
          onChange={(event) => {
            const note = event.target.value
            edit((d) => ({ ...d, note }), 'note')
          }}
        />
      </div>
      {restored && (
        <p role="status" className="mt-1 flex flex-wrap items-center gap-2 text-[14px]">
          Your unsaved changes from {moment(restored)} are back.
          <Button look="quiet" className="min-h-7 px-2 py-0 underline" onClick={onThrowAway}>
            Throw them away
          </Button>
        </p>
      )}
    </div>
  )
}
