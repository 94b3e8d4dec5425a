import { z } from 'zod'
import { AUDIT_KEYS, THERE_OR_NOT } from '@core/walk/audit.ts'
import { instantMs, stationId, idOf } from './common.ts'

export const auditQuery = z.object({ areaId: idOf('area').optional() })
/** What is at hand at each place, as somebody last saw it. */
export const auditAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  areas: z.array(z.object({ id: idOf('area'), name: z.string() })),
  places: z.array(
    z.object({
      stationId,
      name: z.string(),
      areaName: z.string(),
      has: z.partialRecord(z.enum(AUDIT_KEYS), z.enum(THERE_OR_NOT)),
      /** When the newest of it was said. */
      saidMs: instantMs.nullable(),
    }),
  ),
})
export type AuditAnswer = z.infer<typeof auditAnswer>
