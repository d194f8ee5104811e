import { Link } from 'react-router'
import { asking, useQuestion } from '../../api/ask'
import type { FormulaDocument } from '../../api/client'

interface ReachesProps {
  /** Key of the component on the Bench. */
  id: string
  document: FormulaDocument
}

/** What saving would do to the formulas this one goes into: their verdicts before and after. */
export function Reaches({ id, document }: ReachesProps) {
  const { found, wrong, waiting, current } = useQuestion(
    asking('post', '/api/components/{id}/reaches', { params: { path: { id } }, body: document }),
  )
  if (wrong) return <p className="text-note text-ink2">What it goes into cannot be told: {wrong}</p>
  if (!found) return null
  const seen = found.filter((each) => {
    const { moved } = each
    return moved && (moved.before !== moved.after || moved.words.length > 0)
  })
  const held = found.filter((each) => each.held_at.length > 0)
  const rest = found.length - seen.length - held.filter((each) => !seen.includes(each)).length
  return (
    <section
      aria-label="What saving changes"
      aria-busy={waiting && !current}
      className="rounded-lg border border-line2 px-3 py-2 text-note"
    >
      <h2 className="font-head text-body font-[640]">
        {seen.length > 0 ? 'Saving moves what it goes into' : 'What it goes into stays as it is'}
      </h2>
      <ul>
        {seen.map((each) => (
          <li key={each.id} className="border-t border-line py-1 first:border-0">
            <Link className="font-[640] text-rim underline" to={`/bench/${each.id}`}>
              {each.name}
            </Link>
            {': '}
            {each.moved?.before === each.moved?.after ? (
              <span>{each.moved?.after ?? 'cannot be worked out'}</span>
            ) : (
              <span>
                {each.moved?.before ?? 'could not be worked out'} <b aria-label="becomes">→</b>{' '}
                <b className={each.moved?.was_right && !each.moved.is_right ? 'text-hot' : ''}>
                  {each.moved?.after ?? 'cannot be worked out any more'}
                </b>
              </span>
            )}
            {each.moved && each.moved.words.length > 0 && `. ${each.moved.words.join('; ')}`}
          </li>
        ))}
        {held.map((each) => (
          <li key={`held-${each.id}`} className="border-t border-line py-1 first:border-0">
            <b>{each.name}</b> holds it at version {each.held_at.join(' and ')}
            {each.moved ? ' in one of its lines' : ' and stays'}.
          </li>
        ))}
        {rest > 0 && seen.length > 0 && (
          <li className="border-t border-line py-1">
            {rest} more {rest === 1 ? 'stays' : 'stay'} as {rest === 1 ? 'it is' : 'they are'}.
          </li>
        )}
      </ul>
    </section>
  )
}
