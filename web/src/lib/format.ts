/** The only place where numbers become text. */

/** Two significant digits, thousands with a comma. */
export function twoDigits(value: number): string {
  if (!Number.isFinite(value) || value <= 0) return '0'
  const rounded = Number(value.toPrecision(2))
  if (rounded >= 10) return rounded.toLocaleString('en', { maximumFractionDigits: 0 })
  const decimals = Math.max(0, 1 - Math.floor(Math.log10(rounded)))
  return rounded.toFixed(decimals)
}

/** Grams as a cook reads a scale: whole above 10, a tenth below. */
export function grams(value: number): string {
  return value >= 10 || value === 0
    ? value.toLocaleString('en', { maximumFractionDigits: 0 })
    : value.toLocaleString('en', { maximumFractionDigits: 1 })
}

/** Grams to be weighed: as many decimals as the scale has, thousands with a comma. */
export function weighed(value: number): string {
  return Number(value.toFixed(2)).toLocaleString('en', { maximumFractionDigits: value < 1 ? 2 : 1 })
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

/** A typed number; null for nothing typed, undefined for what is no number. */
export function numberOrNull(text: string): number | null | undefined {
  if (text.trim() === '') return null
  const value = Number(text.trim().replace(',', '.'))
  return Number.isFinite(value) ? value : undefined
}

/** Money with two decimals and the kitchen's currency. */
export function price(value: number, currency: string): string {
  return `${value.toLocaleString('en', { minimumFractionDigits: 2, maximumFractionDigits: 2 })} ${currency}`
}

/** "Cream 36 %" stays on one line. */
export function unbroken(name: string): string {
  return name.replaceAll(' %', '\u00a0%')
}
