import { measureBore } from '@core/photomeasure/bore.ts'
import { measureNozzle } from '@core/photomeasure/nozzle.ts'
import { measureSpan } from '@core/photomeasure/span.ts'
import { grayOf, type Gray } from '@core/photomeasure/gray.ts'
import { type Answer, type MeasureAnswer, type MeasureAsk } from './asked.ts'

/** The picture stays here: twelve million pixels are read once, and every tap is measured beside the page, not in it. */
let image: Gray | null = null

self.onmessage = ({ data: ask }: MessageEvent<MeasureAsk>) => {
  if (ask.type === 'photo') {
    void open(ask.file).then((size) => self.postMessage({ type: 'photo', id: ask.id, size } satisfies MeasureAnswer))
    return
  }
  if (!image) return
  self.postMessage({ type: 'measured', id: ask.id, answer: measured(image, ask) } satisfies MeasureAnswer)
}

function measured(of: Gray, ask: Exclude<MeasureAsk, { type: 'photo' }>): Answer {
  if (ask.type === 'span') return { is: 'span', of: measureSpan({ ...ask, image: of }) }
  const { centre, innerPx, outerPx } = ask
  return ask.type === 'bore'
    ? { is: 'bore', of: measureBore({ image: of, centre, borePx: innerPx, outerPx, outerMm: ask.outerMm }) }
    : { is: 'nozzle', of: measureNozzle({ image: of, centre, tipPx: innerPx, innerPx: outerPx }) }
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
