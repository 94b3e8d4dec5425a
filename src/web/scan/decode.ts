import jsQR from 'jsqr'

/** Larger pictures are looked at in this size: a code that fills a tenth of it is still read. */
const MOST_PX = 1400

function textIn(source: CanvasImageSource, width: number, height: number): string | null {
  if (width === 0 || height === 0) return null
  const scale = Math.min(1, MOST_PX / Math.max(width, height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(width * scale)
  canvas.height = Math.round(height * scale)
  const context = canvas.getContext('2d', { willReadFrequently: true })
  if (!context) return null
  context.drawImage(source, 0, 0, canvas.width, canvas.height)
  const { data } = context.getImageData(0, 0, canvas.width, canvas.height)
  return jsQR(data, canvas.width, canvas.height)?.data ?? null
}

export const codeInVideo = (video: HTMLVideoElement): string | null =>
  textIn(video, video.videoWidth, video.videoHeight)

export async function codeInImage(file: Blob): Promise<string | null> {
  const image = await createImageBitmap(file)
  try {
    return textIn(image, image.width, image.height)
  } finally {
    image.close()
  }
}
