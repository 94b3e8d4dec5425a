/** What a booth needs at hand or in place, by what can be done with it and not by which tool it is (P098, P102, P182, P194, P199; D32). */
export const AUDIT = {
  gripTip: { ask: 'Something that grips a tip', short: 'grip a tip' },
  scrapeNozzle: { ask: 'Something that scrapes a nozzle out', short: 'scrape a nozzle' },
  snipWire: { ask: 'Something that snips wire', short: 'snip wire' },
  ownBrush: { ask: 'A stainless brush kept for this metal', short: 'a brush of its own' },
  hangGun: { ask: 'A hook or clamp to hang the gun on', short: 'hang the gun' },
  chainCylinder: { ask: 'A chain round the cylinder', short: 'chain the cylinder' },
} as const
export type AuditKey = keyof typeof AUDIT
export const AUDIT_KEYS = Object.keys(AUDIT) as [AuditKey, ...AuditKey[]]
export const THERE_OR_NOT = ['there', 'missing'] as const
export type ThereOrNot = (typeof THERE_OR_NOT)[number]

/** How many places lack each thing, the most first; and how many nobody looked at. */
export function auditCounts(places: readonly Partial<Record<AuditKey, ThereOrNot>>[]): {
  lacking: { key: AuditKey; places: number }[]
  lackingPlaces: number
  unseenPlaces: number
} {
  const lacking = AUDIT_KEYS.map((key) => ({ key, places: places.filter((p) => p[key] === 'missing').length }))
  return {
    lacking: lacking.filter((l) => l.places > 0).sort((a, b) => b.places - a.places),
    lackingPlaces: places.filter((p) => AUDIT_KEYS.some((k) => p[k] === 'missing')).length,
    unseenPlaces: places.filter((p) => AUDIT_KEYS.every((k) => p[k] === undefined)).length,
  }
}
