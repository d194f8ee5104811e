import { useState } from 'react'
import type { BenchWork, Finding, Mend, Standing } from '../../api/client'

interface FindingsProps {
  findings: Finding[]
  /** What shows them at their place; none where there is no drawing. */
  onSelect?: (path: string) => void
  onMend: (mend: Mend) => void
  onBench: (work: BenchWork) => void
}

/** Everything found, trouble first; what holds is folded away. */
export function Findings({ findings, onSelect, onMend, onBench }: FindingsProps) {
  const [open, setOpen] = useState(false)
  const wrong = findings.filter((finding) => finding.standing !== 'holds')
  const holds = findings.filter((finding) => finding.standing === 'holds')
  const shown = open ? [...wrong, ...holds] : wrong.length > 0 ? wrong : holds.slice(0, 3)
  const hidden = open ? 0 : findings.length - shown.length
  return (
    <section aria-label="What is found">
      <ul className="flex flex-col">
        {shown.map((finding, at) => (
          <li
            key={`${finding.code}${finding.place}${at}`}
            className="flex gap-2.5 border-t border-line py-1.5 first:border-0"
          >
            <Sign standing={finding.standing} />
            <div className="min-w-0 flex-1">
              {onSelect ? (
                <button
                  type="button"
                  className="w-full rounded text-left hover:bg-rim-tint pointer-coarse:min-h-11"
                  onClick={() => onSelect(finding.place)}
                >
                  <Words finding={finding} />
                </button>
              ) : (
                <p>
                  <Words finding={finding} />
                </p>
              )}
              {finding.standing !== 'holds' && (finding.mend ?? finding.bench) && (
                <div className="mt-1 flex flex-wrap gap-x-4 gap-y-1">
                  {finding.mend && <MendButton mend={finding.mend} onMend={onMend} />}
                  {finding.bench && <BenchButton work={finding.bench} onBench={onBench} />}
                </div>
              )}
            </div>
          </li>
        ))}
      </ul>
      {(hidden > 0 || open) && (
        <button
          type="button"
          aria-expanded={open}
          className="mt-1 min-h-8 font-[640] text-rim underline pointer-coarse:min-h-11"
          onClick={() => setOpen(!open)}
        >
          {open ? 'Only what matters' : `${hidden} more that hold`}
        </button>
      )}
    </section>
  )
}

function Words({ finding }: { finding: Finding }) {
  if (finding.standing !== 'trouble') return <>{finding.sentence}</>
  const [head = '', ...rest] = finding.sentence.split(/(?<=[:.]) /)
  return (
    <>
      <b className="text-hot">{head}</b> {rest.join(' ')}
    </>
  )
}

function MendButton({ mend, onMend }: { mend: Mend; onMend: (mend: Mend) => void }) {
  if (mend.writes.length === 0) return <span className="text-note text-ink2">{mend.words}.</span>
  return (
    <button
      type="button"
      className="min-h-8 rounded-lg border-2 border-rim px-3 text-[14.5px] font-[640] text-rim hover:bg-rim-tint pointer-coarse:min-h-11"
      onClick={() => onMend(mend)}
    >
      {mend.words}
    </button>
  )
}

function BenchButton({ work, onBench }: { work: BenchWork; onBench: (work: BenchWork) => void }) {
  return (
    <button
      type="button"
      className="min-h-8 text-[14.5px] font-[640] text-rim underline pointer-coarse:min-h-11"
      onClick={() => onBench(work)}
    >
      Open on the Bench
    </button>
  )
}

const SAYS: Record<Standing, string> = { holds: 'Holds', care: 'Mind', trouble: 'Does not hold' }

/** A ticked box, a raised hand, a triangle: shape says it, colour only repeats it. */
function Sign({ standing }: { standing: Standing }) {
  return (
    <svg
      width="20"
      height="20"
      viewBox="0 0 20 20"
      role="img"
      aria-label={SAYS[standing]}
      className="mt-0.5 shrink-0"
    >
      {standing === 'trouble' && (
        <>
          <path d="M10 1.5L19 18H1Z" fill="var(--hot)" />
          <path d="M10 7v5.4M10 14.4v1.8" stroke="var(--hot-text)" strokeWidth="2" />
        </>
      )}
      {standing === 'care' && (
        <>
          <circle cx="10" cy="10" r="8" fill="none" stroke="var(--ink)" strokeWidth="2" />
          <path d="M10 5.4v5.6M10 13v1.8" stroke="var(--ink)" strokeWidth="2" />
        </>
      )}
      {standing === 'holds' && (
        <>
          <rect x="2" y="3" width="16" height="14" rx="3" fill="none" stroke="var(--rim)" strokeWidth="2" />
          <path d="M5.5 10l3 3 6-6" fill="none" stroke="var(--rim)" strokeWidth="2.4" />
        </>
      )}
    </svg>
  )
}
