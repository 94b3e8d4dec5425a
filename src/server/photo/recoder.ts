import sharp from 'sharp'
import { MOST_PX, SMALL_PX } from '@core/photo/photo.ts'

/**
 * A process of its own that encodes photos anew, one at a time: a picture that never ends, or fills the memory, ends with this process, and neither sign-ins
 * nor pages wait behind it.
 */
export interface Recoded {
  widthPx: number
  heightPx: number
  jpeg: string
  small: string
}
export type RecoderSaid = { recoded: Recoded } | { problem: string }

/** A picture that unpacks to more than this is no photo of a tip. */
const MOST_INPUT_PX = 60_000_000
/** A picture takes a second or two; the process is ended a little after this. */
export const LONGEST_S = 12

// Only the three formats that a phone or a tablet takes: no drawings, no documents, nothing that is rendered.
sharp.block({ operation: ['VipsForeignLoad'] })
sharp.unblock({
  operation: ['VipsForeignLoadJpegBuffer', 'VipsForeignLoadPngBuffer', 'VipsForeignLoadWebpBuffer'],
})
sharp.cache(false)
sharp.concurrency(1)

async function recode(bytes: Uint8Array): Promise<Recoded> {
  const open = () =>
    sharp(bytes, { limitInputPixels: MOST_INPUT_PX, failOn: 'error', animated: false })
      .timeout({ seconds: LONGEST_S })
      .rotate()
  const inside = (most: number) => ({ width: most, height: most, fit: 'inside' as const, withoutEnlargement: true })
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
}

process.on('message', (bytes: Uint8Array) => {
  recode(bytes).then(
    (recoded) => process.send?.({ recoded } satisfies RecoderSaid),
    (problem: unknown) => process.send?.({ problem: String(problem) } satisfies RecoderSaid),
  )
})
// The server is gone: nobody waits for an answer any more.
process.on('disconnect', () => process.exit(0))
