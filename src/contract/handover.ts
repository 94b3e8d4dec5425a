import { z } from 'zod'
import { TAGS } from '@core/changeover/tags.ts'
import { FOLLOW_UPS } from '@core/followup/keys.ts'
import { alarmLine } from './reading.ts'
import { logLine } from './logbook.ts'
import { eventId, instantMs, stationId, position, idOf } from './common.ts'

const gun = z.object({ stationId, name: z.string() })
export const handoverQuery = z.object({ areaId: idOf('area').optional() })
/** What one shift or class leaves to the next, made from the log: nobody writes it. */
export const handoverAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  fromMs: instantMs,
  toMs: instantMs,
  areas: z.array(z.object({ id: idOf('area'), name: z.string() })),
  guns: z.number().int(),
  /** Down, longest first, with what was tried since and did not help. */
  down: z.array(
    gun.extend({
      sinceMs: instantMs,
      position: position.nullable(),
      minutes: z.number().nullable(),
      tried: z.array(logLine),
    }),
  ),
  /** Temporary settings nobody has undone. */
  standing: z.array(gun.extend({ tag: z.enum(TAGS), sinceMs: instantMs, untilMs: instantMs.nullable(), position })),
  /** What readings and looks ask for. */
  asks: z.array(gun.extend({ alarm: alarmLine })),
  followUps: z.array(gun.extend({ task: z.enum(FOLLOW_UPS) })),
  parked: z.array(gun),
  builtWrong: z.array(gun),
  /** Said by two devices within minutes of each other: one act or two? Both are kept until somebody says. */
  doubles: z.array(
    gun.extend({
      act: z.enum(['changed', 'cleaned']),
      position,
      firstMs: instantMs,
      secondMs: instantMs,
      secondId: eventId,
    }),
  ),
  /** Done in the stretch, the most first. */
  done: z.array(z.object({ act: z.enum(['changed', 'cleaned']), position, times: z.number().int() })),
})
export type HandoverAnswer = z.infer<typeof handoverAnswer>
