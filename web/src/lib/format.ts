/** The only place where numbers become text. */

/** Two significant digits, thousands with a comma. */
export function twoDigits(value: number): string {
  if (!Number.isFinite(value) || value <= 0) return '0'
  const rounded = Number(value.toPrecision(2))
  if (rounded >= 10) return rounded.toLocaleString('en', { maximumFractionDigits: 0 })
  const decimals = Math.max(0, 1 - Math.floor(Math.log10(rounded)))
  return rounded.toFixed(decimals)
}

/** Grams that somebody weighs, wherever they are shown or printed: whole from 1 kg, tenths below, hundredths below 1 g. */
export function weighed(value: number): string {
  const decimals = value >= 1000 ? 0 : value >= 1 ? 1 : 2
  return Number(value.toFixed(decimals)).toLocaleString('en', { maximumFractionDigits: decimals })
}

export function degrees(value: number): string {
  return `${value.toFixed(1)} °C`
}

export function percent(value: number, decimals = 1): string {
  return `${value.toFixed(decimals)} %`
}

export function fixed(value: number, decimals: number): string {
  return value.toFixed(decimals)
}

/** The zone of the clock on the kitchen's wall; that of this device while nobody said. */
let wall: string | undefined

/** Sets the clock on the wall; a name this browser does not know is as none. */
export function setWall(zone: string | null | undefined): void {
  try {
    wall = zone ? new Intl.DateTimeFormat('en-GB', { timeZone: zone }).resolvedOptions().timeZone : undefined
  } catch {
    wall = undefined
  }
}

/** "Tue 24 Nov, 07:42" by the clock on the kitchen's wall. */
export function moment(iso: string): string {
  const { day, time } = clock(new Date(iso))
  return `${day}, ${time}`
}

export function clock(date: Date): { day: string; time: string } {
  const timeZone = wall
  return {
    day: date.toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone }),
    time: date.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit', timeZone }),
  }
}

/** "Tue 24 Nov" by the clock on the kitchen's wall; with its year when that is another than this one. */
export function dayOf(iso: string): string {
  const timeZone = wall
  const year = (date: Date) => date.toLocaleDateString('en-GB', { year: 'numeric', timeZone })
  const date = new Date(iso)
  const { day } = clock(date)
  return year(date) === year(new Date()) ? day : `${day} ${year(date)}`
}

/** Money with two decimals and the kitchen's currency. */
export function price(value: number, currency: string): string {
  return `${value.toLocaleString('en', { minimumFractionDigits: 2, maximumFractionDigits: 2 })} ${currency}`
}

/** "Cream 36 %" stays on one line. */
export function unbroken(name: string): string {
  return name.replaceAll(' %', '\u00a0%')
}
