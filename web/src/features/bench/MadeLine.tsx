import { Link } from 'react-router'
import type { Assessment, ComponentSummary } from '../../api/client'
import type { BenchLine } from './document'
import { componentOf } from '../../lib/madeHere'
import { Bowl } from '../../ui/Bowl'

interface MadeLineProps {
  line: BenchLine
  answer: Assessment['lines'][number] | undefined
  kept: ComponentSummary[]
}

/** Says of a line that it is made here: what it is, at which version, and where its own sheet is. */
export function MadeLine({ line, answer, kept }: MadeLineProps) {
  const made = componentOf(line.ingredient)
  if (!made) return null
  const own = kept.find((each) => each.id === made.component)
  const held =
    made.version !== null &&
    `held at version ${made.version}${own && own.revision > made.version ? `, newest is ${own.revision}` : ''}`
  const words = [answer?.made_here?.word, held, line.had_set && 'had set before', own?.archived && 'put away']
    .filter(Boolean)
    .join(', ')
  return (
    <p className="-mt-1 flex flex-wrap items-center gap-x-2 pb-1 pl-5 text-small leading-tight text-ink2">
      <span className="inline-flex items-center gap-1 font-[640] text-ink">
        <Bowl />
        made here
      </span>
      {words && <span>{words}</span>}
      {own && (
        <Link className="font-[640] text-rim underline pointer-coarse:py-2" to={`/bench/${own.id}`}>
          its sheet
        </Link>
      )}
    </p>
  )
}
