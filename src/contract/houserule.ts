import { z } from 'zod'
import { SCOPES, QUESTION_CODES } from '@core/houserule/schools.ts'
import { LINER_CLAUSES } from '@core/liner/clauses.ts'
import { idempotencyKey, instantMs, kindKey, lifeUnit } from './common.ts'

/** Terms of the liner's rule: which clauses are on, from which ratio of its beginning, after how many tips. */
export const linerTerms = z.object({
  on: z.array(z.enum(LINER_CLAUSES)),
  pullRatio: z.number().min(1.1).max(5),
  tips: z.number().int().min(1).max(9),
})
/** A choice among schools. Who chose is told to leads. */
export const choiceLine = z.object({
  code: z.enum(QUESTION_CODES),
  scopeType: z.enum(SCOPES),
  scopeKey: z.string(),
  option: z.string(),
  terms: linerTerms.nullable().default(null),
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
      kindKey,
      classKey: z.string(),
      limit: z.number(),
      unit: lifeUnit,
      past: z.number().int(),
      suggested: z.number(),
    }),
  ),
})
export type IgnoredAnswer = z.infer<typeof ignoredAnswer>

/** Chooses a school for a scope; `option` null goes back to what holds without it. */
export const choiceRequest = z.object({
  key: idempotencyKey,
  code: z.enum(QUESTION_CODES),
  scopeType: z.enum(SCOPES),
  scopeKey: z.string().min(1).max(40),
  option: z.string().max(20).nullable(),
  note: z.string().trim().max(200).optional(),
  /** Of the liner's rule by signs; left out: as they were. */
  terms: linerTerms.optional(),
})
