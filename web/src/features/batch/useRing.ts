import { useEffect, useRef } from 'react'

/** A clock that nobody hears rings again so often, ms. */
const AGAIN_MS = 8000

let sound: AudioContext | null = null

/** Two short tones; a browser that has not been touched yet stays silent, and the picture says it. */
function tone() {
  try {
    sound ??= new AudioContext()
    const from = sound.currentTime
    for (const after of [0, 0.3]) {
      const voice = sound.createOscillator()
      const loud = sound.createGain()
      voice.frequency.value = 880
      loud.gain.setValueAtTime(0.25, from + after)
      loud.gain.exponentialRampToValueAtTime(0.001, from + after + 0.25)
      voice.connect(loud).connect(sound.destination)
      voice.start(from + after)
      voice.stop(from + after + 0.25)
    }
  } catch {
    // No sound here.
  }
}

function tell(words: string, tag: string) {
  if (!('Notification' in window) || Notification.permission !== 'granted') return
  try {
    new Notification(words, { tag })
  } catch {
    // Some browsers only let a worker notify.
  }
}

/** Asks, after a press, whether the browser may notify. */
export function askToNotify() {
  if ('Notification' in window && Notification.permission === 'default')
    void Notification.requestPermission().catch(() => undefined)
}

/** What rings at a moment. */
export interface Rings {
  id: string
  name: string
  /** When, RFC 3339. */
  rings: string
}

/** Rings for clocks that are over, on every device that has the batch open, until somebody heard them. */
export function useRing(timers: readonly Rings[], now: number) {
  const rung = useRef(new Map<string, number>())
  useEffect(() => {
    for (const timer of timers) {
      if (Date.parse(timer.rings) > now) continue
      const last = rung.current.get(timer.id)
      if (last !== undefined && now - last < AGAIN_MS) continue
      if (last === undefined) tell(`${timer.name || 'The clock'}: it is time`, timer.id)
      rung.current.set(timer.id, now)
      tone()
    }
  }, [timers, now])
}
