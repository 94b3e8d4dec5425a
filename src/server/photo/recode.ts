import sharp from 'sharp'
import { MOST_PX, SMALL_PX } from '@core/photo/photo.ts'
import { DomainError } from '@server/problem/problem.ts'

export interface Recoded {
  widthPx: number
  heightPx: number
  jpeg: string
  small: string
}
/** A picture that unpacks to more than this is no photo of a tip. */
const MOST_INPUT_PX = 60_000_000

/**
 * A photo as it is kept: turned upright, made small enough, and encoded anew, so that nothing rides along: no place, no time,
 * no device, no bytes behind the picture. Whatever is no picture is refused in words.
 */
export async function recode(bytes: Uint8Array): Promise<Recoded> {
  const open = () => sharp(bytes, { limitInputPixels: MOST_INPUT_PX, failOn: 'error', animated: false }).rotate()
  const inside = (most: number) => ({ width: most, height: most, fit: 'inside' as const, withoutEnlargement: true })
  try {
    const large = await open()
      .resize(inside(MOST_PX))
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 80 })
      .toBuffer({ resolveWithObject: true })
    const small = await open()
      .resize(inside(SMALL_PX))
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 70 })
      .toBuffer()
    return {
      widthPx: large.info.width,
      heightPx: large.info.height,
      jpeg: large.data.toString('base64'),
      small: small.toString('base64'),
    }
  } catch (cause) {
    throw Object.assign(
      new DomainError('sheet-refused', 'That is no picture this program can read.', [
        'Take a JPEG, PNG or WebP of at most 60 megapixels. Nothing was kept.',
      ]),
      { cause },
    )
  }
}
