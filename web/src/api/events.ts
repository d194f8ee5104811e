/** One event by its name and data; none for a line that only keeps the connection. */
export function eventOf(text: string): { name: string; data: unknown } | null {
  let name = ''
  const data: string[] = []
  for (const line of text.split('\n')) {
    if (line.startsWith('event:')) name = line.slice(6).trim()
    if (line.startsWith('data:')) data.push(line.slice(5).trimStart())
  }
  return name && data.length > 0 ? { name, data: JSON.parse(data.join('\n')) as unknown } : null
}
