import { useEffect } from 'react'

/** Keeps the screen awake while something is made, where the browser can. */
export function useAwake(on: boolean) {
  useEffect(() => {
    if (!on || !('wakeLock' in navigator)) return
    let lock: WakeLockSentinel | null = null
    let gone = false
    const take = () => {
      if (document.visibilityState !== 'visible') return
      navigator.wakeLock.request('screen').then(
        (own) => {
          if (gone) void own.release()
          else lock = own
        },
        // A device that is short of power says no: the screen sleeps as it always did.
        () => undefined,
      )
    }
    take()
    document.addEventListener('visibilitychange', take)
    return () => {
      gone = true
      document.removeEventListener('visibilitychange', take)
      void lock?.release()
    }
  }, [on])
}
