import type { ReactNode } from 'react'
import { useFamily } from '../../lib/families'
import type { BenchDocument } from './document'
import { FamilySwitch } from './FamilySwitch'

interface TitleProps {
  document: BenchDocument
  edit: (change: (document: BenchDocument) => BenchDocument, tag?: string) => void
  /** What is to be known of the work in hand. */
  notice: ReactNode
}

export function Title({ document, edit, notice }: TitleProps) {
  const family = useFamily(document.family)
  return (
    <div className="min-w-0">
      <h1 className="sr-only">{document.name || 'New formula'}</h1>
      <input
        aria-label="Name of the formula"
        placeholder={`Name this ${family?.word ?? 'formula'}`}
        maxLength={120}
        autoComplete="off"
        className="-ml-1.5 w-full truncate rounded-md border border-transparent bg-transparent px-1.5 font-head text-display leading-[1.15] font-[720] tracking-[-0.01em] placeholder:text-ink3 hover:border-line focus:border-line2"
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
      {notice}
    </div>
  )
}
