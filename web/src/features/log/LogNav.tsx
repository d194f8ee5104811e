import { NavLink } from 'react-router'

const PAGES = [
  ['/log', 'Batches'],
  ['/log/measured', 'Predicted and measured'],
  ['/log/learned', 'What it learned'],
  ['/log/trainer', 'Trainer'],
] as const

/** The pages of the log. */
export function LogNav() {
  return (
    <nav aria-label="Log" className="no-print -mb-1 flex flex-wrap gap-1 border-b border-line">
      {PAGES.map(([to, words]) => (
        <NavLink
          key={to}
          to={to}
          end
          className={({ isActive }) =>
            `inline-flex min-h-9 items-center rounded-t-lg border-b-[3px] px-3 font-head font-[640] pointer-coarse:min-h-11 ${
              isActive ? 'border-rim text-ink' : 'border-transparent text-ink2 hover:bg-rim-tint'
            }`
          }
        >
          {words}
        </NavLink>
      ))}
    </nav>
  )
}
