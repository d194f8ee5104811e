import { createContext, useContext } from 'react'

/** Key of the component on the Bench; none for something new. */
const InHand = createContext<string | null>(null)

export const OnTheBench = InHand.Provider

export function useOnTheBench(): string | null {
  return useContext(InHand)
}
