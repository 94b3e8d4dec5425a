import { lazy, Suspense, useState } from 'react'
import { pairPhotoKey } from '@core/photo/photo.ts'
import { type PairLine } from '@contract/classes.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { PhotoPick } from '@web/photo/Photos.tsx'
import { useHidePhoto, useKeepPhoto } from '@web/photo/queries.ts'

const Crop = lazy(async () => ({ default: (await import('./Crop.tsx')).Crop }))

/** The shop’s own photos of a card, marked right or wrong, cut to what matters before they are kept. */
export function PairPhotos({ pair }: { pair: PairLine }) {
  return (
    <section className="pair-photos" aria-label="Photos of this shop">
      <p>Hands and parts only: no face and no name in it. Cut it to what is to be seen.</p>
      {(['right', 'wrong'] as const).map((side) => (
        <Side key={side} pair={pair} side={side} />
      ))}
    </section>
  )
}

function Side({ pair, side }: { pair: PairLine; side: 'right' | 'wrong' }) {
  const keep = useKeepPhoto({ type: 'pair', key: pairPhotoKey(pair.key, side) })
  const hide = useHidePhoto()
  const [file, setFile] = useState<File | null>(null)
  const photos = pair.photos.filter((p) => p.side === side)
  return (
    <div className="pair-photo-side">
      {photos.map((p) => (
        <span key={p.id}>
          <img src={`/api/photo/${p.id}-small.jpg`} alt={`Photo, ${side}`} height="72" />{' '}
          <Bare onClick={() => hide.mutate(p.id)}>take it back</Bare>
        </span>
      ))}
      {file ? (
        <Suspense fallback={null}>
          <Crop
            file={file}
            onCut={(cut) => {
              setFile(null)
              keep.mutate(cut)
            }}
            onLeave={() => setFile(null)}
          />
        </Suspense>
      ) : (
        <PhotoPick
          word={side === 'right' ? 'photo of it right' : 'photo of it wrong'}
          accept="image/*"
          isKeeping={keep.isPending}
          onFile={setFile}
        />
      )}
      <Trouble problem={keep.error ?? hide.error} />
    </div>
  )
}
