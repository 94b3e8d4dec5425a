import { Bare, Plain } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { type PhotoOf } from '@core/photo/photo.ts'
import { when } from '@web/format/times.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useOutbox } from './keeping.ts'
import { useHidePhoto, useKeepPhoto, usePhotos } from './queries.ts'

/** Photos of one thing in a row, and the way to add one: the camera on a phone, a file on a desk. */
export function Photos({ of, word = 'a photo' }: { of: PhotoOf; word?: string }) {
  const photos = usePhotos(of)
  const keep = useKeepPhoto(of)
  const hide = useHidePhoto()
  const { waiting, refused } = useOutbox()
  const here = waiting.filter((w) => w.of.type === of.type && w.of.key === of.key).length
  const [open, setOpen] = useState<string | null>(null)
  const list = photos.data?.photos ?? []
  const shown = list.find((p) => p.id === open)
  return (
    <div className="photos">
      {list.map((p) => (
        <Plain
          key={p.id}
          className="photo"
          aria-expanded={p.id === open}
          onClick={() => setOpen(p.id === open ? null : p.id)}
        >
          <img
            src={`/api/photo/${p.id}-small.jpg`}
            alt={`Photo of ${when(p.takenMs, Date.now(), photos.data?.zone ?? 'UTC')}`}
            height="72"
            loading="lazy"
          />
        </Plain>
      ))}
      <label className="btn photo-add">
        {keep.isPending ? 'keeping it …' : word}
        <input
          type="file"
          accept="image/*"
          capture="environment"
          className="visually-hidden"
          disabled={keep.isPending}
          onChange={(e) => {
            const [file] = e.target.files ?? []
            if (file) keep.mutate(file)
            e.target.value = ''
          }}
        />
      </label>
      {here > 0 ? (
        <span role="status">{here === 1 ? 'one kept here' : `${here} kept here`} until there is a link</span>
      ) : null}
      {refused ? (
        <p className="trouble" role="alert">
          {refused}
        </p>
      ) : null}
      <Trouble problem={keep.error ?? hide.error} />
      {shown ? (
        <figure className="photo-open">
          <img
            src={`/api/photo/${shown.id}.jpg`}
            alt="The photo, large"
            width={shown.widthPx}
            height={shown.heightPx}
          />
          <figcaption>
            {when(shown.takenMs, Date.now(), photos.data?.zone ?? 'UTC')}{' '}
            {shown.canHide ? (
              <Bare onClick={() => hide.mutate(shown.id, { onSuccess: () => setOpen(null) })}>take it back</Bare>
            ) : null}
          </figcaption>
        </figure>
      ) : null}
    </div>
  )
}
