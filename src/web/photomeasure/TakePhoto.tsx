import { useEffect, useMemo } from 'react'
import { type Point } from '@core/photomeasure/ellipse.ts'

/** One picture from the camera, or a file on a desk. */
export function TakePhoto({ word, onPhoto }: { word: string; onPhoto: (file: File) => void }) {
  return (
    <label className="btn photo-add">
      {word}
      <input
        type="file"
        accept="image/*"
        capture="environment"
        className="visually-hidden"
        onChange={(e) => {
          const [chosen] = e.target.files ?? []
          if (chosen) onPhoto(chosen)
        }}
      />
    </label>
  )
}

/** As wide as there is room, and no higher than most of the screen: its box is the picture, so that a tap lands where it looks. */
export const pictureWidth = ({ width, height }: { width: number; height: number }) =>
  `min(100%, ${((60 * width) / height).toFixed(1)}vh)`

/** Where on the picture a pointer is, in its own pixels. */
export function pointOn(
  svg: SVGSVGElement | null,
  size: { width: number; height: number },
  e: { clientX: number; clientY: number },
): Point {
  const box = svg?.getBoundingClientRect()
  if (!box) return { x: 0, y: 0 }
  return { x: ((e.clientX - box.left) / box.width) * size.width, y: ((e.clientY - box.top) / box.height) * size.height }
}

/** The address of a picture in memory, given back when it is no longer shown. */
export function useObjectUrl(file: Blob | null): string | null {
  const url = useMemo(() => (file ? URL.createObjectURL(file) : null), [file])
  useEffect(() => () => (url ? URL.revokeObjectURL(url) : undefined), [url])
  return url
}
