import { type PairKey } from '@core/classes/items.ts'
import { type StationId } from '@core/ids/id.ts'
import { type Position } from '@core/path/columns.ts'
/** What a photo may be of, as a type and the key of the one. */
export const PHOTO_TYPES = ['position', 'spool', 'part', 'event', 'guide', 'pair'] as const
export type PhotoType = (typeof PHOTO_TYPES)[number]
export interface PhotoOf {
  type: PhotoType
  key: string
}

/** A pair's key: which pair, and which side of it the photo shows. @example pairPhotoKey('tipTight', 'wrong') // 'tipTight wrong' */
export const pairPhotoKey = (pair: PairKey, side: 'right' | 'wrong') => `${pair} ${side}`
/** A position's key: the place and the position on it. @example positionKey('stn_1', 'tip') // 'stn_1 tip' */
export const positionKey = (stationId: StationId, position: Position) => `${stationId} ${position}`
/** The place a photo's key speaks of; null where it speaks of none. */
export const placeOfKey = (of: PhotoOf): string | null =>
  of.type === 'position' ? (of.key.split(' ')[0] ?? null) : null

/** Before the key a line was written under, where its id is not known yet. */
export const BY_KEY = 'key:'

/** Longest side, as kept and as a small picture in a row. */
export const MOST_PX = 1600
export const SMALL_PX = 240

/**
 * The size a picture is brought to: longest side at most `most`, never enlarged, never under a pixel.
 * @example fitInside({ width: 4000, height: 3000 }, 1600) // { width: 1600, height: 1200 }
 */
export function fitInside(size: { width: number; height: number }, most: number): { width: number; height: number } {
  if (!(size.width > 0 && size.height > 0 && most > 0))
    throw new RangeError(`fitInside: expected sizes > 0, got ${size.width}×${size.height} in ${most}`)
  const scale = Math.min(1, most / Math.max(size.width, size.height))
  const side = (px: number) => Math.max(1, Math.round(px * scale))
  return { width: side(size.width), height: side(size.height) }
}
