/** This tab of the browser among the others, and what they tell each other. */

/** A key nobody else makes: also where the page is served without TLS and `randomUUID` is missing. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  return Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('')
}

const TAB = 'bright-spoon.tab'

/** The name survives a reload and not a copy of the tab: it is put down only while the page is left. */
function takeName(): string {
  try {
    const kept = sessionStorage.getItem(TAB)
    sessionStorage.removeItem(TAB)
    return kept ?? newId()
  } catch {
    return newId()
  }
}

/** This tab. */
export const TAB_ID = takeName()

window.addEventListener('pagehide', () => {
  try {
    sessionStorage.setItem(TAB, TAB_ID)
  } catch {
    // Without a store this tab gets a new name; its drafts are found as those of a closed one.
  }
})
window.addEventListener('pageshow', (event) => {
  if (!event.persisted) return
  try {
    sessionStorage.removeItem(TAB)
  } catch {
    // As above.
  }
})

type Said =
  | { kind: 'who'; tab: string }
  | { kind: 'here'; tab: string; open: string | null }
  | { kind: 'saved'; tab: string; what: string; revision: number }
  | { kind: 'drafts'; tab: string }

const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('bright-spoon')
const ears = new Set<(said: Said) => void>()

/** What is open in this tab: "formula 01a2…"; nothing on a list. */
let open: string | null = null

function say(said: Said) {
  channel?.postMessage(said)
}

channel?.addEventListener('message', (event: MessageEvent<Said>) => {
  if (event.data.kind === 'who') say({ kind: 'here', tab: TAB_ID, open })
  for (const hear of ears) hear(event.data)
})

/** Hears what other tabs say until it is called off. */
export function listen(hear: (said: Said) => void): () => void {
  ears.add(hear)
  return () => void ears.delete(hear)
}

export function nameOf(noun: string, key: string): string {
  return `${noun} ${key}`
}

/** Tells what is open here, for who asks. */
export function showOpen(what: string | null) {
  open = what
}

export function tellSaved(what: string, revision: number) {
  say({ kind: 'saved', tab: TAB_ID, what, revision })
}

export function tellDrafts() {
  say({ kind: 'drafts', tab: TAB_ID })
}

/** How long other tabs get to answer. */
const ANSWER_MS = 150

/** The other tabs that live, and what is open in each. */
export async function otherTabs(): Promise<Map<string, string | null>> {
  const found = new Map<string, string | null>()
  if (!channel) return found
  const stop = listen((said) => {
    if (said.kind === 'here') found.set(said.tab, said.open)
  })
  say({ kind: 'who', tab: TAB_ID })
  await new Promise((done) => window.setTimeout(done, ANSWER_MS))
  stop()
  return found
}
