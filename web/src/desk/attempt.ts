import { OfflineError, savingAs } from '../api/client'
import { newId } from './tabs'

/** When something was sent first, and under which id. */
export interface First {
  id: string
  at: string
}

/** Saves that got no answer, by what they were: the same again goes out under the same id and is made once. */
const unanswered = new Map<string, First>()

/** Sends a save under an id of its own, or again under the one it had. `what` says all that is sent, and where. */
export async function attempt<T>(
  what: unknown,
  send: (header: ReturnType<typeof savingAs>, first: First) => Promise<T>,
): Promise<T> {
  const key = JSON.stringify(what)
  const first = unanswered.get(key) ?? { id: newId(), at: new Date().toISOString() }
  unanswered.set(key, first)
  try {
    const answer = await send(savingAs(first.id), first)
    unanswered.delete(key)
    return answer
  } catch (error) {
    // A plain no is an answer.
    if (!(error instanceof OfflineError)) unanswered.delete(key)
    throw error
  }
}
