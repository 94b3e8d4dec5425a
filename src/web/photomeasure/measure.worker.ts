import { measureBore, type BoreAnswer } from '@core/photomeasure/bore.ts'
import { grayOf, type Gray } from '@core/photomeasure/gray.ts'
import { type Point } from '@core/photomeasure/ellipse.ts'

export type MeasureAsk =
  | { type: 'photo'; id: number; file: Blob }
  | {
      type: 'bore'
      id: number
      centre: Point
      borePx: number | null
      outerPx: number | null
      outerMm: number
    }
export type MeasureAnswer =
  | { type: 'photo'; id: number; size: { width: number; height: number } | null }
  | { type: 'bore'; id: number; bore: BoreAnswer }

/** The picture stays here: twelve million pixels are read once, and every tap is measured beside the page, not in it. */
let image: Gray | null = null

self.onmessage = ({ data: ask }: MessageEvent<MeasureAsk>) => {
  if (ask.type === 'photo') {
    void open(ask.file).then((size) => self.postMessage({ type: 'photo', id: ask.id, size } satisfies MeasureAnswer))
    return
  }
  if (!image) return
  const bore = measureBore({ ...ask, image })
  self.postMessage({ type: 'bore', id: ask.id, bore } satisfies MeasureAnswer)
}

async function open(file: Blob): Promise<{ width: number; height: number } | null> {
  const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => null)
  if (!bitmap) return null
  const { width, height } = bitmap
  const context = new OffscreenCanvas(width, height).getContext('2d')
  if (!context) return null
  context.drawImage(bitmap, 0, 0)
  bitmap.close()
  image = grayOf(context.getImageData(0, 0, width, height).data, width, height)
  return { width, height }
}
