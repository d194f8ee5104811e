/** What was typed where a number belongs. */
export type Typed =
  | { kind: 'number'; value: number }
  | { kind: 'nothing' }
  /** It can be read two ways, or not at all: in words, with what to write. */
  | { kind: 'wrong'; words: string }

/**
 * Reads a number with at most one point or comma. A comma before three digits parts thousands here and decimals there:
 * it is asked about, never guessed. The core has the same reader; both are held to one table of cases.
 */
export function readNumber(text: string): Typed {
  const typed = text.trim()
  if (typed === '') return { kind: 'nothing' }
  const [, minus = '', digits = ''] = /^([-\u2212]?)([0-9.,]*)$/.exec(typed) ?? []
  const marks = digits.replace(/[0-9]/g, '').length
  if (marks > 1 || !/[0-9]/.test(digits)) return { kind: 'wrong', words: 'Write a number, for example 12.5.' }
  const [before = '', after] = digits.split(',')
  if (after?.length === 3 && before !== '' && before !== '0') {
    return {
      kind: 'wrong',
      words: `${digits} can be read two ways: write ${before}${after} or ${before}.${after}.`,
    }
  }
  const value = Number(digits.replace(',', '.'))
  return { kind: 'number', value: minus ? -value : value }
}

/** A typed number; null for nothing typed, undefined for what is no number. */
export function numberOrNull(text: string): number | null | undefined {
  const typed = readNumber(text)
  if (typed.kind === 'nothing') return null
  return typed.kind === 'number' ? typed.value : undefined
}

/** What is wrong with a typed number; none when it is one, or nothing is typed. */
export function numberWords(text: string): string | undefined {
  const typed = readNumber(text)
  return typed.kind === 'wrong' ? typed.words : undefined
}

/** A temperature as typed: °C, or °F when it says so. */
export function readTemperature(text: string): Typed & { fahrenheit?: number } {
  const match = /^(.+?)\s*°?\s*([CF])\s*$/i.exec(text.trim())
  const typed = readNumber(match?.[1] ?? text)
  if (typed.kind !== 'number' || match?.[2]?.toUpperCase() !== 'F') return typed
  return { kind: 'number', value: celsius(typed.value), fahrenheit: typed.value }
}

/** Degrees Fahrenheit in °C, to half a degree: finer than a kitchen probe. */
export function celsius(fahrenheit: number): number {
  return Math.round((2 * (fahrenheit - 32)) / 1.8) / 2
}
