import { CLEARANCE_MM } from './guess.ts'

/** Clearance of the outlet guide, from its own size against the wire on; null where it is not told. */
export function guideClearance(guideMm: number | null, wireMm: number): number | null {
  if (guideMm === null) return null
  return CLEARANCE_MM.typical + Math.max(0, guideMm - wireMm)
}
