import type { BenchDocument, BenchLine } from './document'

/** How many rules a formula has. */
export function countRules(document: BenchDocument): number {
  const rules = document.rules ?? {}
  const lines = document.lines.filter((line) => isBound(line)).length
  return (
    lines +
    Number(rules.keep_total ?? false) +
    Number(rules.whole_pieces ?? false) +
    (rules.shares?.length ?? 0) +
    (rules.ratios?.length ?? 0)
  )
}

/** Whether a line may not move freely. */
export function isBound(line: BenchLine): boolean {
  const { rule } = line
  return (
    !!rule &&
    (rule.locked === true ||
      rule.kept === true ||
      rule.least_g != null ||
      rule.most_g != null ||
      rule.pack_g != null)
  )
}
