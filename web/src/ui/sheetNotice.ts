import { createContext, use } from 'react'
import type { ReactNode } from 'react'

/** What is to be known over every sheet: it covers what the page says. */
export const SheetNotice = createContext<ReactNode>(null)

export function useSheetNotice(): ReactNode {
  return use(SheetNotice)
}
