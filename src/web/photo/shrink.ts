import { fitInside, MOST_PX } from '@core/photo/photo.ts'

const QUALITY = 0.85

/** A photo made small on the device, so that weak wireless carries it; as it is where the browser can't read it (the server says why). */
export async function shrink(file: File): Promise<Blob> {
  if (typeof createImageBitmap === 'undefined') return file
  const image = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => null)
  if (!image) return file
  const size = fitInside(image, MOST_PX)
  const canvas = document.createElement('canvas')
  canvas.width = size.width
  canvas.height = size.height
  canvas.getContext('2d')?.drawImage(image, 0, 0, size.width, size.height)
  image.close()
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', QUALITY))
  return blob ?? file
}
