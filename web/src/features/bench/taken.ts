import type { Process } from '../../api/client'
import { readNumber } from '../../lib/number'
import type { BenchLine } from './document'

type BoilTo = NonNullable<Process['boiled']>
type Strained = NonNullable<Process['strained']>
type Kept = Strained['left']

/** What is taken off a line, or off all of it. */
export interface Taken {
  strained: Strained | null
  /** The wet weight of what is steeped, where it was weighed; none when it is not steeped. */
  steeped: { wet_g?: number } | null
  boiled: BoilTo | null
}

export function withTaken(line: BenchLine, taken: Taken): BenchLine {
  const { strained: _strained, steeped: _steeped, boiled: _boiled, ...bare } = line
  return {
    ...bare,
    ...(taken.strained && { strained: taken.strained }),
    ...(taken.steeped && { steeped: taken.steeped }),
    ...(taken.boiled && { boiled: taken.boiled }),
  }
}

export function withTakenOff(process: Process | undefined, taken: Taken): Process {
  const { strained: _strained, boiled: _boiled, ...bare } = process ?? {}
  return {
    ...bare,
    ...(taken.strained && { strained: taken.strained }),
    ...(taken.boiled && { boiled: taken.boiled }),
  }
}

/** Ways of straining, as one choice. */
export const STRAINED = [
  ['none', 'not strained'],
  ['sieved through', 'pressed through a sieve: skins and pips stay in it'],
  ['drained stays', 'drained: the liquid runs off'],
  ['drained through', 'drained: only the liquid is kept'],
  ['sieved stays', 'sieved: what stays in the sieve is kept'],
] as const

export type StrainedAs = (typeof STRAINED)[number][0]

export function strainedAs(strained: Strained | null | undefined): StrainedAs {
  return strained ? `${strained.how} ${strained.keeps}` : 'none'
}

export function strainedTo(as: StrainedAs, left: Kept): Strained | null {
  if (as === 'none') return null
  const [how, keeps] = as.split(' ') as [Strained['how'], Strained['keeps']]
  return { how, keeps, left }
}

/** How much is left, as it is typed. */
export function leftWords(left: BoilTo | Kept | null | undefined): string {
  switch (left?.to) {
    case 'share':
      return `${Math.round(1000 * left.of_weight) / 10} %`
    case 'weight':
      return `${left.left_g} g`
    case 'brix':
      return `${left.brix} Bx`
    case 'temperature':
      return `${left.c} °C`
    case undefined:
      return ''
  }
}

/** Reads how much is left: "60 %", "420 g", and of what is boiled "72 Bx" or "118 °C"; undefined for what is none. */
export function readLeft(text: string): BoilTo | null | undefined {
  const typed = text.trim()
  if (typed === '') return null
  const [, digits = '', unit = ''] = /^([\d.,]+)\s*(%|g|kg|°?\s*bx|brix|°?\s*[cf])$/i.exec(typed) ?? []
  const number = readNumber(digits)
  if (number.kind !== 'number' || !(number.value > 0)) return undefined
  const [value, as] = [number.value, unit.toLowerCase().replace(/[°\s]/g, '')]
  if (as === '%') return { to: 'share', of_weight: value / 100 }
  if (as === 'g' || as === 'kg') return { to: 'weight', left_g: as === 'kg' ? 1000 * value : value }
  if (as === 'bx' || as === 'brix') return { to: 'brix', brix: value }
  return { to: 'temperature', c: as === 'f' ? Math.round(((value - 32) / 1.8) * 10) / 10 : value }
}

/** The same of what is strained: a weight or a share. */
export function readKept(text: string): Kept | null | undefined {
  const left = readLeft(text)
  return left && left.to !== 'share' && left.to !== 'weight' ? undefined : left
}

/** What is done to a line before it goes in, in a few words. */
export function takenWords(line: BenchLine): string {
  const { strained, boiled } = line
  const words = [
    strained && `${strained.how === 'sieved' ? 'sieved' : 'drained'}, ${leftWords(strained.left)} kept`,
    line.steeped && 'steeped and taken out',
    boiled && `boiled down to ${leftWords(boiled)}`,
    line.by_taste && 'by taste, beside the shares',
  ]
  return words.filter(Boolean).join(', ')
}
