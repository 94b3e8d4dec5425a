import { Bare, Plain } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { type PhotoOf } from '@core/photo/photo.ts'
import { when } from '@web/format/times.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { ClipPlayer } from './ClipPlayer.tsx'
import { useOutbox } from './keeping.ts'
import { useHidePhoto, useKeepPhoto, usePhotos } from './queries.ts'

/** Photos of one thing in a row, and the way to add one: the camera on a phone, a file on a desk. Clips where motion tells something. */
export function Photos({ of, word = 'a photo', clipWord }: { of: PhotoOf; word?: string; clipWord?: string }) {
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
            alt={`${p.clip ? 'Clip' : 'Photo'} of ${when(p.takenMs, Date.now(), photos.data?.zone ?? 'UTC')}`}
            height="72"
            loading="lazy"
          />
        </Plain>
      ))}
      <PhotoPick word={word} accept="image/*" isKeeping={keep.isPending} onFile={keep.mutate} />
      {clipWord ? <PhotoPick word={clipWord} accept="video/*" isKeeping={keep.isPending} onFile={keep.mutate} /> : null}
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
          {shown.clip ? (
            <ClipPlayer
              key={shown.id}
              src={`/api/photo/${shown.id}.jpg`}
              clip={shown.clip}
              widthPx={shown.widthPx}
              heightPx={shown.heightPx}
            />
          ) : (
            <img
              src={`/api/photo/${shown.id}.jpg`}
              alt="The photo, large"
              width={shown.widthPx}
              height={shown.heightPx}
            />
          )}
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

/** One picture or film taken or chosen: the camera on a phone, a file on a desk. */
export function PhotoPick(props: {
  word: string
  accept: 'image/*' | 'video/*'
  isKeeping: boolean
  onFile: (file: File) => void
}) {
  const { word, accept, isKeeping, onFile } = props
  return (
    <label className="btn photo-add">
      {isKeeping ? 'keeping it …' : word}
      <input
        type="file"
        accept={accept}
        capture="environment"
        className="visually-hidden"
        disabled={isKeeping}
        onChange={(e) => {
          const [file] = e.target.files ?? []
          if (file) onFile(file)
          e.target.value = ''
        }}
      />
    </label>
  )
}
