import { z } from 'zod'
import { PHOTO_TYPES } from '@core/photo/photo.ts'
import { MOST_FRAMES } from '@core/photo/clip.ts'
import { idempotencyKey, instantMs, idOf } from './common.ts'

export const photoOf = z.object({ type: z.enum(PHOTO_TYPES), key: z.string().min(1).max(80) })
/** Of a clip: its pictures in rows on one photo. */
const clip = z.object({
  frames: z.coerce.number().int().min(1).max(MOST_FRAMES),
  perRow: z.coerce.number().int().min(1).max(MOST_FRAMES),
  stepMs: z.coerce.number().int().min(20).max(2000),
})
const CLIP_WHOLE = { message: 'a clip says how many pictures, how many in a row and how far apart', path: ['frames'] }
export const photoUpload = photoOf
  .extend({ once: idempotencyKey, ...clip.partial().shape })
  .refine((p) => new Set([p.frames, p.perRow, p.stepMs].map((n) => n === undefined)).size === 1, CLIP_WHOLE)
export const photoLine = z.object({
  id: idOf('photo'),
  widthPx: z.number().int(),
  heightPx: z.number().int(),
  takenMs: instantMs,
  canHide: z.boolean(),
  clip: clip.nullable().default(null),
})
export type PhotoLine = z.infer<typeof photoLine>
export const photosAnswer = z.object({ zone: z.string(), photos: z.array(photoLine) })
export const photoKept = z.object({ id: idOf('photo') })
export const photoHide = z.object({ key: idempotencyKey, id: idOf('photo') })
