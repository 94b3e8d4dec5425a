import { type Reader } from '@web/kit/readform.ts'

export const LEAST_LETTERS = 10
/** A password that is to hold from now on. */
export const newPassword: Reader<string> = (text) =>
  text.length >= LEAST_LETTERS
    ? { ok: true, value: text }
    : { ok: false, why: `At least ${LEAST_LETTERS} letters; ${text.length} so far.` }
