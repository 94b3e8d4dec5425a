import { z } from 'zod'
import { PHOTO_TYPES } from '@core/photo/photo.ts'
import { idempotencyKey, instantMs, idOf } from './common.ts'

export const photoOf = z.object({ type: z.enum(PHOTO_TYPES), key: z.string().min(1).max(80) })
export const photoUpload = photoOf.extend({ once: idempotencyKey })
export const photoLine = z.object({
  id: idOf('photo'),
  widthPx: z.number().int(),
  heightPx: z.number().int(),
  takenMs: instantMs,
  canHide: z.boolean(),
})
export type PhotoLine = z.infer<typeof photoLine>
export const photosAnswer = z.object({ zone: z.string(), photos: z.array(photoLine) })
export const photoKept = z.object({ id: idOf('photo') })
export const photoHide = z.object({ key: idempotencyKey, id: idOf('photo') })
