import { useState } from 'react'
import { Link } from 'react-router'
import { asking, useKept } from '../../api/ask'
import { moment, weighed } from '../../lib/format'

const DAY_MS = 24 * 3_600_000

/** What is left over of batches, what goes off first first. */
export function Leftovers() {
  const left = useKept(asking('get', '/api/leftovers'))
  const [now] = useState(() => Date.now())
  if (left.isError) return <p className="mt-6 text-hot">What is left over cannot be read.</p>
  if (!left.data || left.data.length === 0) return null
  return (
    <section className="mt-6 max-w-3xl" aria-label="Left over">
      <h2 className="text-title">Left over</h2>
      <ul className="border-t border-line">
        {left.data.map((own) => {
          const until = Date.parse(own.made) + own.keeps_days * DAY_MS
          const late = until < now
          return (
            <li key={own.batch} className="border-b border-line">
              <Link
                className="flex min-h-11 flex-wrap items-center gap-x-4 px-2 hover:bg-rim-tint"
                to={`/make/${own.batch}`}
              >
                <span className="min-w-0 flex-1">
                  <b>{weighed(own.grams)} g</b> {own.name}
                  {own.stands_in && `, in ${own.stands_in}`}
                </span>
                <span className={`text-note ${late ? 'font-[640] text-hot' : 'text-ink2'}`}>
                  {late ? 'past its day: ' : 'use by '}
                  {moment(new Date(until).toISOString()).split(',')[0]}
                </span>
              </Link>
            </li>
          )
        })}
      </ul>
    </section>
  )
}
