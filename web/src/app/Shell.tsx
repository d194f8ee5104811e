import { useEffect, useState } from 'react'
import { Link, Outlet, useLocation, useNavigate } from 'react-router'
import { ProblemError, SILENT } from '../api/client'
import { useKeepsDrafts } from '../desk/useSaving'
import { KitchenMenu } from '../features/kitchen/KitchenMenu'
import { useHealth, useKitchen } from '../features/kitchen/queries'
import { LibraryMenu } from '../features/library/LibraryMenu'
import { useDesk } from '../features/rescue/desk'
import { RESCUE_KEY, RescueDesk } from '../features/rescue/RescueDesk'
import { clock, setWall } from '../lib/format'
import { useKeys } from '../lib/keys'
import { rememberTheme, storedTheme } from '../lib/theme'
import { Keycap } from '../ui/Button'
import { PhasePatterns } from '../ui/phases'
import { SheetNotice } from '../ui/sheetNotice'
import { KeysSheet } from './KeysSheet'

/** The ticket rail above, one tray below. */
export function Shell() {
  const [keys, setKeys] = useState(false)
  // Before anything below says a time.
  setWall(useKitchen().data?.time_zone)
  useKeys('Everywhere', [{ key: '?', words: 'This list', run: () => setKeys(true) }])
  return (
    <SheetNotice value={<ServerNotice inSheet />}>
      <RescueDesk>
        <div className="flex min-h-screen flex-col">
          <PhasePatterns />
          <header className="no-print relative z-10 flex min-h-11 flex-wrap items-stretch gap-1 border-b-[3px] border-line bg-well pr-3 pl-4">
            <Brand />
            <Rail />
            <LibraryMenu />
            <RescueButton />
            <div className="ml-auto flex flex-wrap items-center gap-2">
              <KitchenMenu onKeys={() => setKeys(true)} />
              <ThemeSwitch />
              <Clock />
            </div>
          </header>
          <ServerNotice />
          <KeysSheet open={keys} onOpenChange={setKeys} />
          <main className="flex flex-1 flex-col px-[14px] pt-[14px] pb-[10px]">
            <Outlet />
          </main>
        </div>
      </RescueDesk>
    </SheetNotice>
  )
}

/** Help for what went wrong, in reach on every page. */
function RescueButton() {
  const { open } = useDesk()
  return (
    <button
      type="button"
      aria-keyshortcuts={RESCUE_KEY}
      className="my-1 flex min-h-8 items-center gap-2 rounded-lg border-2 border-hot px-3 font-[640] text-hot hover:bg-rim-tint pointer-coarse:min-h-11"
      onClick={open}
    >
      Rescue
      <span className="max-narrow:hidden">
        <Keycap>{RESCUE_KEY}</Keycap>
      </span>
    </button>
  )
}

const PLACES = [
  { key: '1', word: 'Bench', to: '/', at: ['/bench', '/new'] },
  { key: '2', word: 'Stack', to: '/stack', at: ['/stack', '/orders'] },
  { key: '3', word: 'Day', to: '/day', at: ['/day'] },
  { key: '4', word: 'Make', to: '/make', at: ['/make'] },
  { key: '5', word: 'Log', to: '/log', at: ['/log'] },
  { key: '6', word: 'Formulas', to: '/formulas', at: ['/formulas', '/compare'] },
  { key: '7', word: 'Pantry', to: '/pantry', at: ['/pantry'] },
] as const

/** The ticket rail: where one is hangs from it as tape. */
function Rail() {
  const { pathname } = useLocation()
  const navigate = useNavigate()
  useKeys('Everywhere', [
    ...PLACES.map((place) => ({ key: place.key, words: place.word, run: () => void navigate(place.to) })),
    { key: 'n', words: 'A new formula', run: () => void navigate('/new') },
  ])
  return (
    <nav
      aria-label="Rooms"
      className="ml-2 flex flex-wrap items-stretch gap-1 max-phone:ml-0 max-phone:gap-0.5"
    >
      {PLACES.map((place) => {
        const here = pathname === '/' ? place.to === '/' : place.at.some((at) => pathname.startsWith(at))
        return (
          <Link
            key={place.key}
            to={place.to}
            aria-current={here ? 'page' : undefined}
            className={
              here
                ? 'tape torn-foot -mb-3 flex h-[52px] items-center gap-2 px-4 pb-1 font-head text-lead font-[640] max-tablet:mb-0 max-tablet:h-11 max-tablet:px-2.5 max-tablet:text-body max-phone:px-1.5 max-phone:text-note'
                : 'my-1 flex min-h-8 items-center gap-2 rounded-lg px-2.5 font-head text-lead font-[640] hover:bg-rim-tint max-tablet:px-1.5 max-tablet:text-body max-phone:px-1 max-phone:text-note'
            }
          >
            <span className="max-narrow:hidden">
              <Keycap>{place.key}</Keycap>
            </span>
            {place.word}
          </Link>
        )
      })}
    </nav>
  )
}

function Brand() {
  return (
    <div className="flex min-h-10 items-center gap-2 font-head text-lead font-[720]">
      <svg width="30" height="18" viewBox="0 0 30 18" aria-hidden="true">
        <path
          d="M1.5 9C1.5 4.5 5 2 10.5 2 17 2 19 6 28.5 8.4 20 11 17 16 10.5 16 5 16 1.5 13.5 1.5 9Z"
          fill="var(--tape)"
          stroke="var(--rim)"
          strokeWidth="2.4"
        />
      </svg>
      <span className="whitespace-nowrap max-[1360px]:sr-only">Bright Spoon</span>
    </div>
  )
}

function Clock() {
  const [now, setNow] = useState(() => new Date())
  useEffect(() => {
    const timer = window.setInterval(() => setNow(new Date()), 10_000)
    return () => window.clearInterval(timer)
  }, [])
  const { day, time } = clock(now)
  return (
    <span className="pl-1 text-note whitespace-nowrap text-ink2 max-laptop:hidden">
      <span className="max-[1500px]:sr-only">{day} </span>
      <b className="text-lead text-ink">{time}</b>
    </span>
  )
}

function ThemeSwitch() {
  const [theme, setTheme] = useState(storedTheme)
  const other = theme === 'light' ? 'dim' : 'light'
  return (
    <button
      type="button"
      className="min-h-9 rounded-lg px-2 whitespace-nowrap text-ink2 hover:bg-rim-tint pointer-coarse:min-h-11"
      onClick={() => {
        rememberTheme(other)
        setTheme(other)
      }}
    >
      {other === 'dim' ? (
        <>
          Dim<span className="max-[1500px]:sr-only"> the lights</span>
        </>
      ) : (
        'Lights on'
      )}
    </button>
  )
}

/** Says when the server stopped answering; over a sheet also that what stands in it may be of before. */
function ServerNotice({ inSheet = false }: { inSheet?: boolean }) {
  const health = useHealth()
  const keeps = useKeepsDrafts()
  const { refetch } = health
  useEffect(() => {
    // A call of its own that fails says so again: ask only while it still seems well.
    const look = () => {
      if (!health.isError && !health.isFetching) void refetch()
    }
    window.addEventListener(SILENT, look)
    return () => window.removeEventListener(SILENT, look)
  }, [health.isError, health.isFetching, refetch])
  if (health.isError) {
    return (
      <p
        role="alert"
        className={`no-print bg-hot px-4 py-1.5 text-center font-[640] text-hot-text ${inSheet ? 'rounded-lg' : ''}`}
      >
        {health.error instanceof ProblemError
          ? sentence(health.error.message)
          : 'The server is not answering.'}{' '}
        {inSheet && 'What stands here may be from before. '}
        {keeps
          ? 'Unsaved work is kept on this device; trying again.'
          : 'This device cannot keep unsaved work: leave this page open. Trying again.'}
      </p>
    )
  }
  return null
}

function sentence(words: string): string {
  const first = words.charAt(0).toUpperCase() + words.slice(1)
  return /[.!?]$/.test(first) ? first : `${first}.`
}
