import { useEffect, useRef, useState } from 'react'
import ReactCrop, { type PercentCrop } from 'react-image-crop'
import 'react-image-crop/dist/ReactCrop.css'
import { Bare, Key } from '@web/kit/Keys.tsx'

const WHOLE: PercentCrop = { unit: '%', x: 5, y: 5, width: 90, height: 90 }

/** A picture cut to what is to be seen, by hand or by the keys of the keyboard; what lies outside never leaves the device. */
export function Crop(props: { file: File; onCut: (file: File) => void; onLeave: () => void }) {
  const { file, onCut, onLeave } = props
  const image = useRef<HTMLImageElement>(null)
  const [crop, setCrop] = useState<PercentCrop>(WHOLE)
  const [url, setUrl] = useState<string | null>(null)
  const [why, setWhy] = useState<string | null>(null)
  useEffect(() => {
    const made = URL.createObjectURL(file)
    setUrl(made)
    return () => URL.revokeObjectURL(made)
  }, [file])
  const cut = async () => {
    const blob = image.current ? await cutOf(image.current, crop) : null
    if (!blob) return setWhy('That part is too small to be seen: draw it larger.')
    onCut(new File([blob], 'photo.jpg', { type: 'image/jpeg' }))
  }
  return (
    <div className="crop">
      {url ? (
        <ReactCrop crop={crop} onChange={(_, percent) => setCrop(percent)} ariaLabels={LABELS}>
          <img
            ref={image}
            src={url}
            alt="To be cut"
            onError={() => setWhy('That is no picture that can be shown here.')}
          />
        </ReactCrop>
      ) : null}
      {why ? (
        <p className="trouble" role="alert">
          {why}
        </p>
      ) : null}
      <p>
        <Key size="low" tone="chalk" onClick={() => void cut()}>
          Keep this part
        </Key>{' '}
        <Bare onClick={onLeave}>leave it</Bare>
      </p>
    </div>
  )
}
const LABELS = {
  ...{ cropArea: 'What is kept; arrow keys move it', nwDragHandle: 'upper left corner', nDragHandle: 'upper edge' },
  ...{ neDragHandle: 'upper right corner', eDragHandle: 'right edge', seDragHandle: 'lower right corner' },
  ...{ sDragHandle: 'lower edge', swDragHandle: 'lower left corner', wDragHandle: 'left edge' },
}
const LEAST_PX = 60

/** The chosen part as a picture of its own; null: there is next to nothing in it. */
async function cutOf(image: HTMLImageElement, crop: PercentCrop): Promise<Blob | null> {
  const px = (percent: number, of: number) => Math.round((percent / 100) * of)
  const { naturalWidth: w, naturalHeight: h } = image
  const size = { width: px(crop.width, w), height: px(crop.height, h) }
  if (size.width < LEAST_PX || size.height < LEAST_PX) return null
  const canvas = document.createElement('canvas')
  canvas.width = size.width
  canvas.height = size.height
  canvas
    .getContext('2d')
    ?.drawImage(image, px(crop.x, w), px(crop.y, h), size.width, size.height, 0, 0, size.width, size.height)
  return new Promise((done) => canvas.toBlob(done, 'image/jpeg', 0.9))
}
