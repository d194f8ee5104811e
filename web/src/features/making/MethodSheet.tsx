import type { FormulaDocument, MethodSheet as School } from '../../api/client'
import { unbroken } from '../../lib/format'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { MethodSteps } from './MethodSteps'

interface MethodSheetProps {
  schools: School[] | undefined
  wrong: string | null
  /** Key of the school that is read; the chosen one when none. */
  read: string | null
  onRead: (school: string) => void
  onUse: (document: FormulaDocument) => void
  onPrint: () => void
  onClose: () => void
}

/** How it is made: the schools, and the steps of the one that is read. */
export function MethodSheet({ schools, wrong, read, onRead, onUse, onPrint, onClose }: MethodSheetProps) {
  const school = schools?.find((each) => each.school === read) ?? schools?.find((each) => each.chosen)
  return (
    <Sheet
      open
      wide
      onOpenChange={(open) => !open && onClose()}
      title="Method"
      lead="How the schools make it, worked out for this batch. Choosing one changes air, heat and what is judged."
    >
      {wrong && (
        <p role="alert" className="text-hot">
          {wrong}
        </p>
      )}
      {!schools && !wrong && <p aria-busy="true">Reading the schools…</p>}
      {schools && school && (
        <div className="grid min-h-0 grid-cols-[260px_minmax(0,1fr)] gap-x-8 gap-y-3 overflow-hidden max-tablet:grid-cols-1 max-tablet:overflow-y-auto">
          <nav
            aria-label="Schools"
            className="flex min-h-0 flex-col gap-2 overflow-y-auto max-tablet:overflow-visible"
          >
            {schools.map((each) => (
              <button
                key={each.school}
                type="button"
                aria-current={each === school ? 'true' : undefined}
                className={`min-h-11 shrink-0 rounded-lg border-2 px-3 py-1.5 text-left leading-tight ${
                  each === school ? 'border-rim bg-rim-tint font-[640]' : 'border-line hover:bg-rim-tint'
                }`}
                onClick={() => onRead(each.school)}
              >
                {each.name}
                {each.chosen && (
                  <span className="block text-small font-[450] text-ink2">
                    {each.changes.length === 0 ? 'as it is made now' : 'the usual way'}
                  </span>
                )}
              </button>
            ))}
          </nav>
          <div className="min-h-0 overflow-y-auto pr-1 max-tablet:overflow-visible">
            <div className="mb-2 flex flex-wrap items-center gap-3">
              {school.chosen && school.changes.length === 0 ? (
                <span className="font-[640]">Made so now.</span>
              ) : school.by_hand ? (
                <span className="min-w-0 flex-1 font-[640]">{school.by_hand}</span>
              ) : (
                <Button look="primary" onClick={() => onUse(school.document)}>
                  Make it so
                </Button>
              )}
              <Button onClick={onPrint}>Print this</Button>
              {school.changes.length > 0 && !school.by_hand && (
                <span className="min-w-0 flex-1 text-ink2">
                  Changes: {school.changes.map(unbroken).join('; ')}. {school.headline}.
                </span>
              )}
            </div>
            <MethodSteps school={school} />
          </div>
        </div>
      )}
    </Sheet>
  )
}
