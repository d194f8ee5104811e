/** A moment of the kitchen, written without a zone: "Sat 5 Dec, 15:00". */
export function when(local: string | null | undefined): string | null {
  if (!local) return null
  const date = new Date(local)
  if (Number.isNaN(date.getTime())) return local
  const day = date.toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' })
  const time = date.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
  return `${day}, ${time}`
}

/** A day: "Fri 4 Dec". */
export function onDay(local: string | null | undefined): string | null {
  if (!local) return null
  const date = new Date(`${local}T12:00:00`)
  if (Number.isNaN(date.getTime())) return local
  return date.toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' })
}
