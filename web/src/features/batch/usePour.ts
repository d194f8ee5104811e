import { useEffect, useRef, useState } from 'react'
import { faultWords } from '../../api/ask'
import type { BatchView } from '../../api/client'
import { deviceName } from '../../api/device'
import { askDevice } from '../devices/queries'
import { useScale } from './devices'

/** Where the scale stood when the line began, g, by batch: it survives a look at another page. */
const ZERO = 'bright-spoon.zero'
/** Less than so many of its steps is nothing. */
const FEWEST_STEPS = 2
/** A scale that was set to 0 shows so many of its steps at most. */
const NEAR_0_STEPS = 3

function remembered(batch: string): number | null {
  try {
    const [of, grams] = (sessionStorage.getItem(ZERO) ?? '').split(' ')
    return of === batch && grams !== undefined && Number.isFinite(Number(grams)) ? Number(grams) : null
  } catch {
    return null
  }
}

function remember(batch: string, grams: number) {
  try {
    sessionStorage.setItem(ZERO, `${batch} ${grams}`)
  } catch {
    // It holds while this page is open.
  }
}

/** Whether somebody pressed a key or the glass since the page stands; where the browser does not say, somebody did. */
function wasTouched(): boolean {
  const { userActivation } = navigator as { userActivation?: UserActivation }
  return userActivation?.hasBeenActive ?? true
}

/** What the bench scale shows of the line that is poured now. */
export function usePour(batch: string, view: BatchView) {
  const last = view.happened[0]
  const scale = useScale()
  /** Where the line began, and how many lines began here. */
  const [{ zero, turn, tared }, setBegan] = useState(() => ({
    zero: remembered(batch),
    turn: 0,
    tared: false,
  }))
  const [said, setSaid] = useState<string | null>(null)
  const [tares, setTares] = useState(false)
  const g = scale?.g ?? null
  const begins = (grams: number) => setBegan({ zero: grams, turn: turn + 1, tared: false })
  useEffect(() => {
    if (zero !== null) remember(batch, zero)
  }, [batch, zero])
  const steady = scale?.steady ?? false
  // The first that stands still is where a batch begins that nothing was weighed of here.
  const step = scale?.device.step_g ?? 0.1
  if (zero === null && g !== null) {
    // Set to 0 it is believed once it shows that: what it showed before may still be on its way here.
    if (tared ? Math.abs(g) <= NEAR_0_STEPS * step : steady) begins(tared ? 0 : g)
  }
  const net = g === null || zero === null ? null : Math.round((g - zero) * 100) / 100
  const tare = async () => {
    if (!scale) return
    setTares(true)
    setSaid(null)
    try {
      await askDevice(scale.device.name, { do: 'tare' })
      before.current.clear()
      setBegan({ zero: null, turn: turn + 1, tared: true })
    } catch (error) {
      setSaid(faultWords(error))
    } finally {
      setTares(false)
    }
  }
  /** Where lines began whose weight was taken here, by the id of its event. */
  const before = useRef(new Map<string, number>())
  /** Lines that were taken without a key: not again, once that is taken back. */
  const byItself = useRef(new Set<number>())
  return {
    scale,
    /** What was poured since the line began, g; null while nothing live says so. */
    net,
    steady,
    /** Whether that is something. */
    some: net !== null && net >= FEWEST_STEPS * step - 1e-9,
    /** Less than nothing: a bowl was lifted or changed. */
    less: net !== null && net < -FEWEST_STEPS * step,
    said,
    tare: tares ? undefined : tare,
    byItself,
    /**
     * Whether this device is the one that weighs: it said the last thing of the batch, or somebody touched it before
     * anything was said. Of two tablets at one scale only one takes a weight without a key.
     */
    weighs: last ? last.device === deviceName() : wasTouched(),
    /** Moves with every line that begins here. */
    turn,
    /** What is on the scale now is in, by this event: the next line begins here. */
    taken: (event: string | undefined) => {
      if (event !== undefined && zero !== null) before.current.set(event, zero)
      if (g !== null) begins(g)
    },
    /** An event was taken back: if it was a weight taken here, it is on the scale again. */
    back: (event: string | undefined) => {
      const began = event === undefined ? undefined : before.current.get(event)
      if (event === undefined || began === undefined) return
      before.current.delete(event)
      begins(began)
    },
    /** What the bowl on the scale weighs, g: what it was set to 0 with, else what it shows while nothing is in. */
    bowlOn: (() => {
      if (g === null) return null
      const tared_g = scale?.device.tare_g ?? 0
      const own = tared_g > 0 ? tared_g : view.in_g > 0 ? 0 : g
      return own > 0 ? Math.round(own * 100) / 100 : null
    })(),
    /** The line is poured into a bowl of that weight: what stands on the scale beyond it went in. */
    inBowl: (grams: number) => begins(Math.round((grams - (scale?.device.tare_g ?? 0)) * 100) / 100),
    /** Plays a pour on a stand-in. */
    play: async (grams: number, over: number) => {
      if (!scale || grams <= 0) return
      setSaid(null)
      const scenario = `pour ${grams.toFixed(2)} g at ${Math.max(4, grams / 4).toFixed(1)} g/s, overshoot ${over.toFixed(2)} g`
      try {
        await askDevice(scale.device.name, { do: 'play', scenario })
      } catch (error) {
        setSaid(faultWords(error))
      }
    },
  }
}

export type Pour = ReturnType<typeof usePour>
