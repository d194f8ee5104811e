import { useState } from 'react'
import { asking, useQuestion } from '../../api/ask'
import type { RescueAsk, Sign } from '../../api/client'
import { numberOrNull } from '../../lib/number'
import { BigNumber } from './BigNumber'
import type { InWork } from './desk'
import { OverpourView } from './OverpourView'
import { RemedyView } from './RemedyView'
import { useKeys } from '../../lib/keys'

/** What is in the bowl, how warm, what is seen; then what to do. */
export function RescueBowl({ work }: { work: InWork }) {
  const { document } = work
  const [grams, setGrams] = useState('')
  const [warm, setWarm] = useState('')
  const [sign, setSign] = useState<Sign | null>(null)
  const [pouring, setPouring] = useState(false)
  const [missing, setMissing] = useState<string[]>([])
  const [at, setAt] = useState<string | null>(null)
  const bowl_g = numberOrNull(grams)
  const bowl_c = numberOrNull(warm)
  const ask: RescueAsk = {
    document,
    sign: sign ?? 'split',
    not_at_hand: missing,
    ...(typeof bowl_g === 'number' ? { bowl_g } : {}),
    ...(typeof bowl_c === 'number' ? { bowl_c } : {}),
  }
  const made = { family: document.family, job: document.work.job.kind }
  const signs = useQuestion(asking('get', '/api/rescue/signs', { params: { query: made } }))
  const { found, wrong, offline } = useQuestion(asking('post', '/api/rescue', { body: ask }), sign !== null)
  const shown = found?.sign === sign ? found : undefined
  const remedy = shown?.remedies.find((each) => each.id === at) ?? shown?.remedies[0]
  useKeys('Rescue', [
    {
      key: 'escape',
      words: 'One step back, then out',
      always: true,
      first: true,
      when: () => sign !== null,
      run: () => {
        setSign(null)
        setAt(null)
      },
    },
  ])
  return (
    <div className="grid flex-1 grid-cols-[300px_minmax(0,1fr)] content-start gap-x-8 gap-y-5 px-6 py-4 max-tablet:grid-cols-1">
      <section
        aria-label="In the bowl"
        className="flex flex-col gap-4 max-tablet:grid max-tablet:grid-cols-[1fr_1fr_auto] max-tablet:items-end"
      >
        {!pouring && (
          <>
            <BigNumber
              label="How warm is it"
              unit="°C"
              value={warm}
              onChange={setWarm}
              step={1}
              placeholder="probe it"
              wrong={bowl_c === undefined ? 'write degrees, for example 27' : null}
            />
            <BigNumber
              label="Really in the bowl"
              unit="g"
              value={grams}
              onChange={setGrams}
              step={10}
              placeholder={shown ? String(Math.round(shown.bowl_g)) : 'all of it'}
              wrong={bowl_g === undefined ? 'write grams, for example 280' : null}
            />
          </>
        )}
        <button
          type="button"
          aria-pressed={pouring}
          className={`min-h-14 rounded-xl border-2 px-4 text-left text-title font-[640] ${
            pouring ? 'border-rim bg-rim text-rim-text' : 'border-rim text-rim hover:bg-rim-tint'
          }`}
          onClick={() => {
            setPouring(!pouring)
            setSign(null)
          }}
        >
          Poured too much
        </button>
        {shown && shown.remedies.length > 1 && (
          <nav aria-label="What it may be" className="flex flex-col gap-2 max-tablet:col-span-3">
            <h2 className="text-lead">It may be</h2>
            {shown.remedies.map((each) => (
              <button
                key={each.id}
                type="button"
                aria-current={each === remedy ? 'true' : undefined}
                className={`min-h-12 rounded-lg border-2 px-3 py-1.5 text-left text-lead leading-tight ${
                  each === remedy ? 'border-rim bg-rim-tint font-[640]' : 'border-line hover:bg-rim-tint'
                }`}
                onClick={() => setAt(each.id)}
              >
                {each.seen}
              </button>
            ))}
          </nav>
        )}
      </section>
      <section aria-label="What to do" className="min-w-0">
        {offline && (
          <p role="alert" className="text-hot">
            The server is not answering; trying again.
          </p>
        )}
        {(wrong ?? signs.wrong) && (
          <p role="alert" className="text-title text-hot">
            {wrong ?? signs.wrong}
          </p>
        )}
        {pouring ? (
          <OverpourView work={work} />
        ) : sign === null ? (
          <>
            <h2 className="mb-3 text-head">What do you see?</h2>
            <ul className="grid grid-cols-[repeat(auto-fill,minmax(190px,1fr))] gap-3">
              {(signs.found ?? []).map((each) => (
                <li key={each.sign}>
                  <button
                    type="button"
                    className="min-h-[96px] w-full rounded-xl border-2 border-rim px-5 text-left text-head leading-tight font-[640] hover:bg-rim-tint"
                    onClick={() => {
                      setSign(each.sign)
                      setAt(null)
                    }}
                  >
                    {each.words}
                  </button>
                </li>
              ))}
            </ul>
          </>
        ) : (
          <>
            <div className="mb-3 flex flex-wrap items-center gap-3">
              <button
                type="button"
                className="min-h-12 rounded-lg border-2 border-rim px-4 font-[640] text-rim hover:bg-rim-tint"
                onClick={() => {
                  setSign(null)
                  setAt(null)
                }}
              >
                Another sign
              </button>
              <span className="text-head font-[720]">{shown?.sign_words}</span>
            </div>
            {shown && <p className="mb-3 text-ink2">{shown.numbers_say}</p>}
            {!shown && !wrong && <p aria-busy="true">Working it out for what is in the bowl…</p>}
            {shown && !remedy && (
              <p>
                Nothing is known against this here. Keep a spoonful, note what you did, and ask a colleague.
              </p>
            )}
            {remedy && shown && (
              <RemedyView
                key={remedy.id}
                remedy={remedy}
                cautions={shown.cautions}
                onNo={setAt}
                onUse={work.use}
                onMissing={(key) => setMissing([...missing, key])}
              />
            )}
          </>
        )}
      </section>
    </div>
  )
}
