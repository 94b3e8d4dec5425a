/** How guns of an area are built, and what is different on one of them. */
export interface Built {
  wireId: string | null
  familyId: string | null
  cableM: number | null
  mode: 'short circuit' | 'spray' | 'pulse' | 'globular' | null
  wireSpeedMPerMin: number | null
  rollCount: 2 | 4 | null
  /** Part id by kind. */
  parts: Record<string, string>
}
export type BuiltExcept = Partial<Omit<Built, 'parts'>> & { parts?: Record<string, string> }

export const NOTHING_BUILT: Built = {
  wireId: null,
  familyId: null,
  cableM: null,
  mode: null,
  wireSpeedMPerMin: null,
  rollCount: null,
  parts: {},
}

/**
 * "As the bay, except …": the area's description with the gun's own differences over it. A null or missing value in the
 * difference means "as the bay".
 */
export function builtOf(area: Built, except: BuiltExcept): Built {
  const own = Object.fromEntries(
    Object.entries(except).filter(([key, value]) => key !== 'parts' && value !== null && value !== undefined),
  )
  return { ...area, ...own, parts: { ...area.parts, ...(except.parts ?? {}) } }
}
