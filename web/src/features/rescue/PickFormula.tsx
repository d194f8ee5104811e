import { useState } from 'react'
import { useNavigate } from 'react-router'
import { lately, matches, useComponents } from '../library/queries'

/** Which formula is in trouble, when none is on the Bench. */
export function PickFormula() {
  const components = useComponents()
  const navigate = useNavigate()
  const [typed, setTyped] = useState('')
  const order = lately()
  const rank = (id: string) => (order.includes(id) ? order.indexOf(id) : order.length)
  const found = (components.data ?? [])
    .filter((each) => !each.archived && matches(each, typed))
    .sort((a, b) => rank(a.id) - rank(b.id))
  return (
    <div className="flex flex-col gap-3 px-6 py-4">
      <h2 className="text-head">Which one is it?</h2>
      <input
        aria-label="Search formulas"
        placeholder="Type a name"
        autoComplete="off"
        className="min-h-14 max-w-[600px] rounded-xl border-2 border-line2 bg-enamel px-4 text-title"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      {components.isError && (
        <p role="alert" className="text-hot">
          {components.error?.message}
        </p>
      )}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(280px,1fr))] gap-3">
        {found.map((each) => (
          <li key={each.id}>
            <button
              type="button"
              className="flex min-h-16 w-full flex-col items-start justify-center rounded-xl border-2 border-rim px-4 py-2 text-left hover:bg-rim-tint"
              onClick={() => void navigate(`/bench/${each.id}`)}
            >
              <span className="text-title font-[640]">{each.name}</span>
              <span className="text-lead text-ink2">
                {each.family_word}, {each.job}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {components.data && found.length === 0 && <p>Nothing kept here is called so.</p>}
    </div>
  )
}
