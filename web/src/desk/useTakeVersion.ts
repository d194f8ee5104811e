import { useState } from 'react'
import type { Keeping } from './keeping'

/** Reads a version of something kept and hands it on; says what went wrong when it cannot be read. */
export function useTakeVersion<D>(
  keeping: Keeping<D>,
  id: string,
  onRead: (document: D, revision: number) => void,
  onClose: () => void,
) {
  const [failed, setFailed] = useState<string | null>(null)
  const take = async (revision: number) => {
    try {
      const kept = await keeping.read(id, revision)
      onRead(kept.document, kept.revision)
      onClose()
    } catch (error) {
      setFailed(error instanceof Error ? error.message : 'It cannot be read.')
    }
  }
  return { take, failed }
}
