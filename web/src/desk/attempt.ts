import { OfflineError, savingAs } from '../api/client'
import { newId } from './tabs'

/** Saves that got no answer, by what they were: the same again goes out under the same id and is made once. */
const unanswered = new Map<string, string>()

/** Sends a save under an id of its own, or again under the one it had. `what` says all that is sent, and where. */
export async function attempt<T>(
  what: unknown,
  send: (header: ReturnType<typeof savingAs>) => Promise<T>,
): Promise<T> {
  const key = JSON.stringify(what)
  const id = unanswered.get(key) ?? newId()
  unanswered.set(key, id)
  try {
    const answer = await send(savingAs(id))
    unanswered.delete(key)
    return answer
  } catch (error) {
    // A plain no is an answer.
    if (!(error instanceof OfflineError)) unanswered.delete(key)
    throw error
  }
}
