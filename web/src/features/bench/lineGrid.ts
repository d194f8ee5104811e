/** What stands beside the amount. */
export type View = 'brings' | 'spoons' | 'percent'

/** One grid for the head and every row of a view. */
export const GRID: Record<View, string> = {
  brings: 'grid grid-cols-[14px_minmax(0,1fr)_124px_80px_24px] gap-x-1.5',
  spoons: 'grid grid-cols-[14px_minmax(0,1fr)_118px_124px_24px] gap-x-1.5',
  percent: 'grid grid-cols-[14px_minmax(0,1fr)_124px_80px_24px] gap-x-1.5',
}
