import { isLetter, keyWords, setLettersAreKeys, useKeyList } from '../lib/keys'
import { Sheet } from '../ui/Sheet'
import { Tick } from '../ui/Tick'

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
      <Tick checked={letters} onChange={setLettersAreKeys}>
        Single letters, digits and signs are keys on this device
      </Tick>
      <div className="grid min-h-0 grid-cols-2 gap-x-8 gap-y-4 overflow-y-auto pr-1 max-phone:grid-cols-1">
        {scopes.map(({ scope, keys }) => (
          <section key={scope} aria-label={scope}>
            <h3 className="font-head text-lead font-[640]">{scope}</h3>
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
