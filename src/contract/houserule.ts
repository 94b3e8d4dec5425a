import { z } from 'zod'
import { SCOPES } from '@core/houserule/schools.ts'
import { idempotencyKey, instantMs } from './common.ts'

/** A choice among schools. Who chose is told to leads. */
export const choiceLine = z.object({
  code: z.string(),
  scopeType: z.enum(SCOPES),
  scopeKey: z.string(),
  option: z.string(),
  note: z.string().nullable(),
  chosenBy: z.string().nullable(),
  chosenMs: instantMs,
})
export type ChoiceLine = z.infer<typeof choiceLine>
export const choicesAnswer = z.object({ zone: z.string(), choices: z.array(choiceLine) })

/** Limits that people run past and nothing comes of it. */
export const ignoredAnswer = z.object({
  days: z.number().int(),
  rules: z.array(
    z.object({
      kindKey: z.string(),
      classKey: z.string(),
      limit: z.number(),
      unit: z.string(),
      past: z.number().int(),
      suggested: z.number(),
    }),
  ),
})
export type IgnoredAnswer = z.infer<typeof ignoredAnswer>

/** Chooses a school for a scope; `option` null goes back to what holds without it. */
export const choiceRequest = z.object({
  key: idempotencyKey,
  code: z.string().regex(/^D\d\d$/),
  scopeType: z.enum(SCOPES),
  scopeKey: z.string().min(1).max(40),
  option: z.string().max(20).nullable(),
  note: z.string().trim().max(200).optional(),
})
