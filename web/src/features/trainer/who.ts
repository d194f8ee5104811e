const KEPT = 'bright-spoon.trainee'

/** Who is at the trainer on this device; nobody in particular while nobody said. */
export function storedWho(): string {
  try {
    return localStorage.getItem(KEPT) ?? ''
  } catch {
    return ''
  }
}

export function rememberWho(who: string): void {
  try {
    localStorage.setItem(KEPT, who)
  } catch {
    // It is asked again next time.
  }
}

/** What the dice fall by. */
export function seed(): number {
  return crypto.getRandomValues(new Uint32Array(1))[0] ?? 1
}
