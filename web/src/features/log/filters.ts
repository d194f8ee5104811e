import type { LogQuery } from './queries'

/** What the log is looked through for, as the address has it. */
const TEXTS = ['words', 'family', 'job', 'ingredient', 'lot', 'component', 'from', 'to'] as const

/** How a batch came out, as it is looked for: one of the words, or all that are wrong. */
export const ANY = ''
export const WRONG = 'wrong'

/** A number of the address; none where it is none. */
function number(text: string | null): number | undefined {
  if (text === null || text.trim() === '') return undefined
  const value = Number(text.replace(',', '.'))
  return Number.isFinite(value) ? value : undefined
}

/** The question an address asks of the log. */
export function queryOf(address: URLSearchParams): LogQuery {
  const query: Record<string, unknown> = {}
  for (const name of TEXTS) {
    const text = address.get(name)
    if (text) query[name] = text
  }
  const came = address.get('came')
  if (came === WRONG) query['wrong'] = true
  else if (came) query['came'] = came
  if (address.get('tested')) query['tested'] = true
  for (const name of ['room_from_c', 'room_to_c'] as const) {
    const value = number(address.get(name))
    if (value !== undefined) query[name] = value
  }
  return query as LogQuery
}

/** The address with one of its parts changed; an empty one is left out. */
export function withPart(address: URLSearchParams, name: string, value: string): URLSearchParams {
  const next = new URLSearchParams(address)
  if (value === '') next.delete(name)
  else next.set(name, value)
  return next
}

/** Whether anything is looked for. */
export function asksFor(address: URLSearchParams): boolean {
  return [...TEXTS, 'came', 'tested', 'room_from_c', 'room_to_c'].some((name) => address.get(name))
}
