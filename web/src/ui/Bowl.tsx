/** A mixing bowl: what stands beside it is made here and not bought. */
export function Bowl() {
  return (
    <svg
      width="14"
      height="10"
      viewBox="0 0 14 10"
      aria-hidden="true"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.5"
    >
      <path d="M1 1h12M2 1c0 5 2 8 5 8s5-3 5-8" strokeLinecap="round" />
    </svg>
  )
}
