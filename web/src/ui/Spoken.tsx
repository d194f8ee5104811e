import { useEffect, useRef, useState } from 'react'
import type { ReactNode } from 'react'

/** How long something must stand before it is read out, ms. */
const REST_MS = 900

/** What is shown, read out once it has come to rest: a dragged temperature is spoken where it stops, not on its way. */
export function Spoken({ children }: { children: ReactNode }) {
  const shown = useRef<HTMLDivElement>(null)
  const [said, setSaid] = useState('')
  useEffect(() => {
    const node = shown.current
    if (!node) return
    let timer = 0
    const rest = () => {
      window.clearTimeout(timer)
      timer = window.setTimeout(() => setSaid(node.innerText.replace(/\s+/g, ' ').trim()), REST_MS)
    }
    rest()
    const observer = new MutationObserver(rest)
    observer.observe(node, { subtree: true, childList: true, characterData: true })
    return () => {
      observer.disconnect()
      window.clearTimeout(timer)
    }
  }, [])
  return (
    <>
      <div ref={shown}>{children}</div>
      <p role="status" className="no-print sr-only">
        {said}
      </p>
    </>
  )
}
