import { numberOrNull } from '../../lib/number'
import type { FormulaDocument } from '../../api/client'

/** A line on the Bench: the wire's line with a key that outlives reordering. */
export type BenchLine = FormulaDocument['lines'][number] & { key: string }

export type BenchDocument = Omit<FormulaDocument, 'lines' | 'name'> & { name: string; lines: BenchLine[] }

let lastKey = 0

/** A key for a new line. */
export function newKey(): string {
  lastKey += 1
  return `line-${lastKey}`
}

export function fromWire(document: FormulaDocument): BenchDocument {
  return {
    ...document,
    name: document.name ?? '',
    lines: document.lines.map((line) => ({ ...line, key: newKey() })),
  }
}

export function toWire(document: BenchDocument): FormulaDocument {
  return {
    ...document,
    lines: document.lines.map((line) => {
      const { key: _key, ...wire } = line
      return wire
    }),
  }
}

/** A document with the amounts and the making of a way, its lines keeping their keys. */
export function withWay(document: BenchDocument, way: FormulaDocument): BenchDocument {
  const next = fromWire(way)
  return {
    ...next,
    name: document.name,
    lines: next.lines.map((line, at) => ({ ...line, key: document.lines[at]?.key ?? line.key })),
  }
}

export function editLine(
  document: BenchDocument,
  key: string,
  change: (line: BenchLine) => BenchLine,
): BenchDocument {
  return { ...document, lines: document.lines.map((line) => (line.key === key ? change(line) : line)) }
}

/** Moves a line to another place. */
export function moveLine(document: BenchDocument, key: string, to: number): BenchDocument {
  const from = document.lines.findIndex((line) => line.key === key)
  const line = document.lines[from]
  if (!line || to < 0 || to >= document.lines.length || to === from) return document
  const lines = document.lines.filter((other) => other.key !== key)
  lines.splice(to, 0, line)
  return { ...document, lines }
}

/** The same amount, a step more or less, when it is written in grams or millilitres; else none. */
export function nudged(amount: string, by: number): string | null {
  const match = /^\s*(\d+(?:[.,]\d+)?)\s*(g|ml)?\s*$/i.exec(amount)
  if (!match?.[1]) return null
  const typed = numberOrNull(match[1])
  if (typeof typed !== 'number') return null
  const value = Math.max(0, typed + by)
  const text = Number.isInteger(value) ? String(value) : value.toFixed(1)
  return `${text} ${match[2] ?? 'g'}`
}
