import { useEffect, useState } from 'react'
import { Outlet } from 'react-router'
import { SILENT } from '../api/client'
import { KitchenMenu } from '../features/kitchen/KitchenMenu'
import { useHealth } from '../features/kitchen/queries'
import { LibraryMenu } from '../features/library/LibraryMenu'
import { clock } from '../lib/format'
import { rememberTheme, storedTheme } from '../lib/theme'
import { PhasePatterns } from '../ui/phases'

/** The ticket rail above, one tray below. */
export function Shell() {
  return (
    <div className="flex min-h-screen flex-col">
      <PhasePatterns />
      <header className="no-print relative z-10 flex h-11 items-stretch gap-1 border-b-[3px] border-line bg-well pr-3 pl-4">
        <Brand />
        <div
          aria-current="page"
          className="tape torn-foot -mb-3 ml-2 flex h-[52px] items-center px-5 pb-1 font-head text-[18px] font-[640]"
        >
          Bench
        </div>
        <LibraryMenu />
        <div className="ml-auto flex items-center gap-2">
          <KitchenMenu />
          <ThemeSwitch />
          <Clock />
        </div>
      </header>
      <ServerNotice />
      <main className="flex flex-1 flex-col px-[14px] pt-[14px] pb-[10px]">
        <Outlet />
      </main>
    </div>
  )
}

function Brand() {
  return (
    <div className="flex items-center gap-2 font-head text-[17px] font-[720]">
      <svg width="30" height="18" viewBox="0 0 30 18" aria-hidden="true">
        <path
          d="M1.5 9C1.5 4.5 5 2 10.5 2 17 2 19 6 28.5 8.4 20 11 17 16 10.5 16 5 16 1.5 13.5 1.5 9Z"
          fill="var(--tape)"
          stroke="var(--rim)"
          strokeWidth="2.4"
        />
      </svg>
      <span className="max-[900px]:sr-only">Bright Spoon</span>
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
    <span className="pl-1 text-[14px] text-ink2 max-[900px]:hidden">
      {day} <b className="text-[16px] text-ink">{time}</b>
    </span>
  )
}

function ThemeSwitch() {
  const [theme, setTheme] = useState(storedTheme)
  const other = theme === 'light' ? 'dim' : 'light'
  return (
    <button
      type="button"
      className="min-h-9 rounded-lg px-2 text-ink2 hover:bg-rim-tint pointer-coarse:min-h-11"
      onClick={() => {
        rememberTheme(other)
        setTheme(other)
      }}
    >
      {other === 'dim' ? 'Dim the lights' : 'Lights on'}
    </button>
  )
}

/** Says when the server stopped answering, and when this is only the demo kitchen. */
function ServerNotice() {
  const health = useHealth()
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
      <p role="alert" className="no-print bg-hot px-4 py-1.5 text-center font-[640] text-hot-text">
        The server is not answering. Your work is kept on this device; trying again.
      </p>
    )
  }
  return null
}
