import type { ComponentType } from 'react'
import { api, OfflineError } from '../api/client'

/** What fetches each view. */
const fetchers: (() => Promise<unknown>)[] = []

/**
 * Fetches a view for the router. One whose file is gone, because the program was updated under an open page, is fetched
 * with the page anew, once; work in hand is kept on the device.
 */
export function view<K extends string>(fetch: () => Promise<Record<K, ComponentType>>, name: K) {
  fetchers.push(fetch)
  return async () => {
    try {
      const file = await fetch()
      forget()
      return { Component: file[name] }
    } catch (cause) {
      if (!(await serverAnswers())) throw new OfflineError()
      if (remembered()) throw cause
      window.location.reload()
      // Nothing more is shown until the page is there anew.
      return await new Promise<never>(() => undefined)
    }
  }
}

/** Fetches the other views when the first is there, so that they are at hand when the server is not. */
export function fetchAllViews() {
  const fetchThem = () => fetchers.forEach((fetch) => void fetch().catch(() => undefined))
  if ('requestIdleCallback' in window) window.requestIdleCallback(fetchThem, { timeout: 5000 })
  else setTimeout(fetchThem, 2000)
}

async function serverAnswers(): Promise<boolean> {
  try {
    return (await api.GET('/api/health')).response.ok
  } catch {
    return false
  }
}

const TRIED = 'bright-spoon.fetched-anew'

/** Whether it was tried before, and notes that it was. */
function remembered(): boolean {
  try {
    if (sessionStorage.getItem(TRIED)) return true
    sessionStorage.setItem(TRIED, 'yes')
    return false
  } catch {
    return true
  }
}

function forget() {
  try {
    sessionStorage.removeItem(TRIED)
  } catch {
    // Nothing hangs on it.
  }
}
