/** The tray while its view is fetched. */
export function Waiting() {
  return <div className="tray flex-1" aria-busy="true" />
}
