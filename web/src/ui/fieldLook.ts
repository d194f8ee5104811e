/** How a field to write or choose in looks, wherever it stands. */
export const FIELD = 'min-h-9 min-w-0 max-w-full rounded-lg border bg-enamel text-ink pointer-coarse:min-h-11'

/** Its size: as the text, or where there is little room. */
export const ROOMY = 'px-2 text-body'
export const TIGHT = 'px-1 text-small'

/** The words over a field. */
export const LABEL = 'flex min-w-0 max-w-full flex-col gap-1 text-small text-ink2'
