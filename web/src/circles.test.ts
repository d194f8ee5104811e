import { expect, test } from 'vitest'

/** Every file of the page as text, by its path from here. */
const files = import.meta.glob<string>(['./**/*.ts', './**/*.tsx', '!./**/*.test.ts'], {
  query: '?raw',
  import: 'default',
  eager: true,
})

/** The file an import names. */
function target(from: string, named: string): string | undefined {
  const parts = [...from.split('/').slice(0, -1), ...named.split('/')]
  const whole: string[] = []
  for (const part of parts) {
    if (part === '..') whole.pop()
    else if (part !== '.') whole.push(part)
  }
  const path = `./${whole.join('/')}`
  return [path, `${path}.ts`, `${path}.tsx`].find((each) => each in files)
}

/** What each file uses when it runs: what is only a type is gone by then. */
function arrows(): Map<string, string[]> {
  const found = new Map<string, string[]>()
  for (const [path, text] of Object.entries(files)) {
    const named = [...text.matchAll(/^(?:import|export)(?! type)[^'"]*?from ['"](\.[^'"]+)['"]/gm)]
    found.set(
      path,
      named.flatMap((match) => target(path, match[1] ?? '') ?? []),
    )
  }
  return found
}

function circles(of: Map<string, string[]>): string[] {
  const reach = (from: string) => {
    const seen = new Set<string>()
    const open = [...(of.get(from) ?? [])]
    for (let next = open.pop(); next !== undefined; next = open.pop()) {
      if (seen.has(next)) continue
      seen.add(next)
      open.push(...(of.get(next) ?? []))
    }
    return seen
  }
  return [...of.keys()].filter((path) => reach(path).has(path))
}

test('no files of the page use each other in a circle', () => {
  const of = arrows()
  expect([...of.values()].flat().length).toBeGreaterThan(200)
  expect(circles(of)).toEqual([])
})

test('a circle is found', () => {
  const of = new Map([
    ['a', ['b']],
    ['b', ['c']],
    ['c', ['b']],
  ])
  expect(circles(of)).toEqual(['b', 'c'])
})
