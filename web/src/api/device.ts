/** What this device calls itself: every save carries it, and the history names it. */

export const DEVICE_HEADER = 'Kitchen-Device'
/** Most letters of the name; the server takes no more. */
export const LONGEST_NAME = 60

const KEPT = 'bright-spoon.device'

/** A first name by what it looks like, told apart from others of its kind by three letters. */
function firstName(): string {
  const touch = window.matchMedia('(pointer: coarse)').matches
  const kind = !touch ? 'Computer' : Math.min(screen.width, screen.height) >= 600 ? 'Tablet' : 'Phone'
  const letters = crypto.getRandomValues(new Uint8Array(3))
  return `${kind} ${Array.from(letters, (byte) => 'bcdfghjkmnpqrstvwxz'[byte % 19]).join('')}`
}

let name: string | null = null

export function deviceName(): string {
  if (name !== null) return name
  try {
    name = localStorage.getItem(KEPT)
  } catch {
    // Without a store it is named anew with every load.
  }
  return name?.trim() ? name : nameDevice(firstName())
}

/** Names it, without the space around it; a name of nothing leaves it as it was. */
export function nameDevice(next: string): string {
  const fit = Array.from(next.replace(/\p{Cc}/gu, ' ').trim())
    .slice(0, LONGEST_NAME)
    .join('')
  if (fit === '') return deviceName()
  name = fit
  try {
    localStorage.setItem(KEPT, fit)
  } catch {
    // As above.
  }
  return fit
}
