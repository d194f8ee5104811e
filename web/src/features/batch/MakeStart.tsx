import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { faultWords } from '../../api/ask'
import { answer, api } from '../../api/client'
import { moment } from '../../lib/format'
import { useTitle } from '../../lib/hooks'
import { readNumber } from '../../lib/number'
import { Button } from '../../ui/Button'
import { Select } from '../../ui/Select'
import { TextField } from '../../ui/TextField'
import { useComponents } from '../library/queries'
import { WarmFridges } from '../devices/WarmFridges'
import { Leftovers } from './Leftovers'
import { beginBatch, useBatches } from './queries'
import { NotRead } from '../../ui/NotRead'

/** Batches that are being made, and a new one. */
export function MakeStart() {
  useTitle('Make')
  const running = useBatches(true)
  const all = useBatches(false)
  const made = (all.data ?? []).filter((own) => !(running.data ?? []).some((other) => other.id === own.id))
  if (running.isError && !running.data) {
    return <NotRead title="The batches cannot be read" error={running.error} onAgain={running.refetch} />
  }
  if (!running.data) return <div className="tray flex-1" aria-busy="true" />
  return (
    <div className="tray flex-1 px-6 pt-3 pb-4 max-phone:px-4">
      <WarmFridges />
      <h1 className="text-display">
        {running.data.length === 0
          ? 'Nothing is being made'
          : running.data.length === 1
            ? 'One batch is being made'
            : `${running.data.length} batches are being made`}
      </h1>
      <ul className="mt-3 max-w-3xl border-t border-line">
        {running.data.map((own) => (
          <li key={own.id} className="border-b border-line">
            <Link
              className="flex min-h-[60px] flex-wrap items-center gap-x-4 rounded-lg px-2 text-title hover:bg-rim-tint"
              to={`/make/${own.id}`}
            >
              <b className="min-w-0 flex-1 font-head">{own.name}</b>
              <span className="text-lead text-ink2">
                {own.made_for.length > 0 && `for ${own.made_for.join(' and ')}, `}begun {moment(own.saved_at)}
              </span>
            </Link>
          </li>
        ))}
      </ul>
      <Begin />
      <Leftovers />
      {made.length > 0 && (
        <section className="mt-6 max-w-3xl" aria-label="Made">
          <h2 className="text-title">
            Made last{' '}
            <Link className="ml-2 text-note font-normal text-rim underline" to="/log">
              all of them, in the log
            </Link>
          </h2>
          <ul className="border-t border-line">
            {made.slice(0, 12).map((own) => (
              <li key={own.id} className="border-b border-line">
                <Link
                  className="flex min-h-11 items-center gap-4 px-2 hover:bg-rim-tint"
                  to={`/make/${own.id}`}
                >
                  <span className="min-w-0 flex-1">{own.name}</span>
                  <span className="text-note text-ink2">{moment(own.saved_at)}</span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  )
}

/** A new batch of a formula of the library. */
function Begin() {
  const components = useComponents()
  const navigate = useNavigate()
  const [formula, setFormula] = useState('')
  const [typed, setTyped] = useState('')
  const [wrong, setWrong] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const listed = (components.data ?? []).filter((own) => !own.archived)
  const begin = async () => {
    const read = readNumber(typed)
    if (formula === '') return setWrong('Choose what is to be made.')
    if (read.kind === 'wrong') return setWrong(read.words)
    if (read.kind === 'number' && read.value <= 0)
      return setWrong('Write how much is to be weighed, in grams.')
    setBusy(true)
    setWrong(null)
    try {
      const own = await answer(api.GET('/api/components/{id}', { params: { path: { id: formula } } }))
      const begun = await beginBatch({
        formula: own.document,
        component: own.id,
        revision: own.revision,
        ...(read.kind === 'number' ? { weigh_g: read.value } : {}),
      })
      void navigate(`/make/${begun.kept.id}`)
    } catch (error) {
      setWrong(faultWords(error))
      setBusy(false)
    }
  }
  return (
    <section className="mt-6" aria-label="A new batch">
      <h2 className="text-title">Make a batch</h2>
      <form
        className="mt-1 flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          void begin()
        }}
      >
        <Select
          label="What"
          className="w-72"
          value={formula}
          onChange={setFormula}
          options={[['', 'choose a formula'], ...listed.map((own) => [own.id, own.name] as const)]}
        />
        <TextField
          label="How much is weighed, g"
          placeholder="as it is written"
          inputMode="decimal"
          value={typed}
          onChange={setTyped}
        />
        <Button look="primary" type="submit" disabled={busy}>
          Begin
        </Button>
      </form>
      {wrong && (
        <p role="alert" className="mt-2 text-hot">
          {wrong}
        </p>
      )}
    </section>
  )
}
