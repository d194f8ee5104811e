import { Link } from 'react-router'
import type { AnswerLearned, Point } from '../../api/client'
import { Tick } from '../../ui/Tick'

interface LearnedLineProps {
  learned: AnswerLearned
  /** Whether the book's value is shown beside it. */
  beside: boolean
  onBeside: (beside: boolean) => void
  /** What the book alone says here. */
  book: Point | undefined
}

/** What the kitchen's own tests do to the verdict, and what the book alone would say. */
export function LearnedLine({ learned, beside, onBeside, book }: LearnedLineProps) {
  return (
    <p className="flex flex-wrap items-center gap-x-3 text-note">
      <Link className="min-w-0 text-ink2 underline" to="/log/learned">
        {learned.sentence}
      </Link>
      <Tick checked={beside} onChange={onBeside}>
        The book beside it
      </Tick>
      {beside && book && (
        <span>
          By the book: <b>{book.headline.charAt(0).toLowerCase() + book.headline.slice(1)}</b>.
        </span>
      )}
    </p>
  )
}
