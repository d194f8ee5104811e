import { isLetter, keyWords, setLettersAreKeys, useKeyList } from '../lib/keys'
import { Sheet } from '../ui/Sheet'

/** Every key that does something here, and the switch for those that are one letter. */
export function KeysSheet({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const { scopes, letters } = useKeyList()
  return (
    <Sheet
      open={open}
      onOpenChange={onOpenChange}
      title="Keys"
      lead="Whatever a key does, a button on the page does too."
    >
      <label className="flex min-h-9 items-center gap-2 pointer-coarse:min-h-11">
        <input
          type="checkbox"
          className="h-5 w-5 accent-rim"
          checked={letters}
          onChange={(event) => setLettersAreKeys(event.target.checked)}
        />
        Single letters, digits and signs are keys on this device
      </label>
      <div className="grid min-h-0 grid-cols-2 gap-x-8 gap-y-4 overflow-y-auto pr-1 max-[560px]:grid-cols-1">
        {scopes.map(({ scope, keys }) => (
          <section key={scope} aria-label={scope}>
            <h3 className="font-head text-[18px] font-[640]">{scope}</h3>
            <dl className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-3 gap-y-1">
              {keys.map((key) => {
                const off = !letters && [key.key].flat().every(isLetter)
                return (
                  <div key={keyWords(key)} className="contents">
                    <dt className="font-[640] whitespace-nowrap">{keyWords(key)}</dt>
                    <dd className={off ? 'text-ink2' : ''}>
                      {key.words}
                      {off && ' (switched off)'}
                    </dd>
                  </div>
                )
              })}
            </dl>
          </section>
        ))}
      </div>
    </Sheet>
  )
}
