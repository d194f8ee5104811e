import type { ComponentProps } from 'react'

const looks = {
  primary: 'bg-rim text-rim-text border-rim hover:brightness-110',
  plain: 'bg-enamel text-rim border-rim hover:bg-rim-tint',
  quiet: 'bg-transparent text-ink2 border-transparent hover:bg-rim-tint hover:text-rim',
} as const satisfies Record<string, string>

interface ButtonProps extends ComponentProps<'button'> {
  look?: keyof typeof looks
  /** The key that does the same, shown as a small cap. */
  hotkey?: string
}

export function Button({ look = 'plain', hotkey, className = '', children, ...rest }: ButtonProps) {
  return (
    <button
      type="button"
      className={`inline-flex min-h-9 items-center justify-center gap-2 rounded-tray border-2 px-4 py-1.5 font-[640] whitespace-nowrap transition-colors duration-100 disabled:opacity-55 pointer-coarse:min-h-11 ${looks[look]} ${className}`}
      {...rest}
    >
      {children}
      {hotkey && <Keycap>{hotkey}</Keycap>}
    </button>
  )
}

export function Keycap({ children }: { children: string }) {
  return (
    <kbd
      aria-hidden="true"
      className={`rounded border border-current px-1.5 font-sans text-small leading-[18px] font-[640] ${children.length === 1 ? 'letter' : ''}`}
    >
      {children}
    </kbd>
  )
}
