import { useState } from 'react'
import { faultWords } from '../../api/ask'
import { moment } from '../../lib/format'
import { Button } from '../../ui/Button'
import { FilePick } from '../../ui/FilePick'
import { sendPicture, takePictureAway, usePictures } from './queries'
import { scaled } from './scaled'

/** Pictures of a batch: small, without where and with what they were taken. */
export function Pictures({ batch, name }: { batch: string; name: string }) {
  const pictures = usePictures(batch)
  const [busy, setBusy] = useState(false)
  const [wrong, setWrong] = useState<string | null>(null)
  const [going, setGoing] = useState<string | null>(null)
  const doing = async (what: () => Promise<unknown>) => {
    setBusy(true)
    setWrong(null)
    try {
      await what()
      void pictures.refetch()
    } catch (error) {
      setWrong(faultWords(error) ?? (error as Error).message)
    } finally {
      setBusy(false)
    }
  }
  const all = pictures.data
  const mb = (bytes: number) => (bytes / 1e6).toFixed(1)
  return (
    <section aria-label="Pictures" className="flex flex-col gap-2">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-title">Pictures</h2>
        <span className="no-print">
          <FilePick
            label="Picture of the batch"
            accept="image/*"
            onPick={(file) => void doing(async () => sendPicture(batch, await scaled(file), ''))}
          >
            {busy ? 'Adding it…' : 'Add one'}
          </FilePick>
        </span>
        {all && all.take > 0.6 * all.most && (
          <span className={all.take > 0.9 * all.most ? 'text-hot' : 'text-ink2'}>
            The kitchen’s pictures take {mb(all.take)} of {mb(all.most)} MB.
          </span>
        )}
      </div>
      {wrong && (
        <p role="alert" className="text-hot">
          {wrong}
        </p>
      )}
      {pictures.isError && <p className="text-hot">The pictures cannot be read: {pictures.error?.message}</p>}
      {all && all.pictures.length > 0 && (
        <ul className="flex flex-wrap gap-3">
          {all.pictures.map((own) => (
            <li key={own.id} className="flex w-56 flex-col gap-1">
              <a href={`/api/batches/${batch}/pictures/${own.id}`} target="_blank" rel="noreferrer">
                <img
                  className="h-40 w-full rounded-lg border border-line object-cover"
                  src={`/api/batches/${batch}/pictures/${own.id}`}
                  alt={own.words || `${name}, ${moment(own.kept_at)}`}
                  loading="lazy"
                />
              </a>
              <span className="flex items-center justify-between text-small text-ink2">
                {moment(own.kept_at)}
                {going !== own.id && (
                  <Button
                    look="quiet"
                    className="no-print px-2"
                    aria-label={`Take away the picture of ${moment(own.kept_at)}`}
                    onClick={() => setGoing(own.id)}
                  >
                    Take away
                  </Button>
                )}
              </span>
              {going === own.id && (
                <span role="alert" className="flex flex-wrap items-center gap-2 text-note">
                  It cannot be brought back.
                  <Button
                    className="px-2"
                    onClick={() => {
                      setGoing(null)
                      void doing(() => takePictureAway(batch, own.id))
                    }}
                  >
                    Take it away
                  </Button>
                  <Button look="quiet" className="px-2" onClick={() => setGoing(null)}>
                    Keep it
                  </Button>
                </span>
              )}
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
