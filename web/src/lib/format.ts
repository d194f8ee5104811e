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

/** "Tue 24 Nov, 07:42" in the cook's own time. */
export function moment(iso: string): string {
  const date = new Date(iso)
  const day = date.toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' })
  const time = date.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
  return `${day}, ${time}`
}

export function clock(date: Date): { day: string; time: string } {
  return {
    day: date.toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' }),
    time: date.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' }),
  }
}

/** Money with two decimals and the kitchen's currency. */
export function price(value: number, currency: string): string {
  return `${value.toLocaleString('en', { minimumFractionDigits: 2, maximumFractionDigits: 2 })} ${currency}`
}

/** "Cream 36 %" stays on one line. */
export function unbroken(name: string): string {
  return name.replaceAll(' %', '\u00a0%')
}
