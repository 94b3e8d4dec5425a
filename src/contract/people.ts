import { z } from 'zod'
import { idempotencyKey, idOf } from './common.ts'

export const ROLES = ['lead', 'instructor', 'hand', 'learner'] as const
export const signInRequest = z.object({ name: z.string().trim().min(1).max(60), password: z.string().min(1).max(200) })
const newPassword = z.string().min(10, 'at least 10 letters').max(200)
/** The first lead of an empty shop names it and makes a password. */
export const firstLeadRequest = z.object({
  shopName: z.string().trim().min(1).max(80),
  zone: z.string().min(1).max(40),
  units: z.enum(['metric', 'us']),
  name: z.string().trim().min(1).max(60),
  password: newPassword,
})
/** One's own password anew, by who knows the old one. */
export const passwordRequest = z.object({
  old: z.string().min(1).max(200),
  password: newPassword,
})
/** What an empty shop took in from a whole one’s file. */
export const broughtBack = z.object({ rows: z.number().int() })
export const meAnswer = z.object({
  person: z.object({ id: idOf('person'), name: z.string(), role: z.enum(ROLES) }).nullable(),
  device: z
    .object({
      id: idOf('device'),
      name: z.string(),
      areaId: idOf('area').nullable(),
      stationId: idOf('station').nullable(),
    })
    .nullable(),
  /** No lead yet: the shop is still to be named. */
  isNew: z.boolean(),
  isDemo: z.boolean(),
  /** There are robot cells: their section is shown. */
  hasCells: z.boolean().default(false),
  /** There are booths to learn at: the section of classes is shown. */
  hasClasses: z.boolean().default(false),
  shopName: z.string(),
  zone: z.string(),
  units: z.enum(['metric', 'us']),
  currency: z.string(),
})
export type Me = z.infer<typeof meAnswer>

export const personRequest = z.object({
  key: idempotencyKey,
  id: idOf('person').optional(),
  name: z.string().trim().min(1).max(60),
  role: z.enum(ROLES),
  password: z.string().min(10).max(200).optional(),
  isActive: z.boolean().default(true),
})
export const deviceLinkRequest = z.object({
  key: idempotencyKey,
  name: z.string().trim().min(1).max(60),
  areaId: idOf('area').nullish(),
  stationId: idOf('station').nullish(),
})
export const deviceLinkAnswer = z.object({ deviceId: idOf('device'), path: z.string(), expiresMs: z.number() })
export const bindRequest = z.object({ token: z.string().min(10).max(100) })
export const personLine = z.object({
  id: idOf('person'),
  name: z.string(),
  role: z.enum(ROLES),
  isActive: z.boolean(),
  hasPassword: z.boolean(),
})
export const deviceLine = z.object({
  id: idOf('device'),
  name: z.string(),
  place: z.string(),
  isBound: z.boolean(),
  isActive: z.boolean(),
})
