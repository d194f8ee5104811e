/** A button for a wet hand. */
export const BIG = 'min-h-[68px] px-5 text-title whitespace-normal!'
