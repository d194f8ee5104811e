/** Gives a text or a picture to the person as a file. */
export function saveAs(name: string, kind: string, content: string | Blob) {
  const blob = typeof content === 'string' ? new Blob([content], { type: kind }) : content
  const url = URL.createObjectURL(blob)
  const link = window.document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  window.setTimeout(() => URL.revokeObjectURL(url), 10_000)
}

/** A name a file system takes. */
export function fileName(name: string, other: string): string {
  const plain = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
  return plain || other
}
