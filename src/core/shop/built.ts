import { type Id, type PartId, type FamilyId, type WireId } from '@core/ids/id.ts'
import { NOTHING_OF_CELL, type CellFit, type Gas, type Mode } from '@core/rightparts/facts.ts'

/** How guns of an area are built, and what is different on one of them. */
export interface Built {
  wireId: WireId | null
  familyId: FamilyId | null
  cableM: number | null
  mode: Mode | null
  wireSpeedMPerMin: number | null
  rollCount: 2 | 4 | null
  feederTypeId: Id<'feederType'> | null
  /** The written procedure that is welded by here. */
  procedureId: Id<'procedure'> | null
  gas: Gas | null
  /** What a robot's place has beside its torch; null: no cell, or nothing was told. */
  cell: CellFit | null
  /** Part id by kind. */
  parts: Record<string, PartId>
}
export type BuiltExcept = Partial<Omit<Built, 'parts' | 'cell'>> & {
  parts?: Record<string, PartId>
  cell?: Partial<CellFit> | null
}

export const NOTHING_BUILT: Built = {
  wireId: null,
  familyId: null,
  cableM: null,
  mode: null,
  wireSpeedMPerMin: null,
  rollCount: null,
  feederTypeId: null,
  procedureId: null,
  gas: null,
  cell: null,
  parts: {},
}

/**
 * "As the bay, except …": the area's description with the gun's own differences over it. A null or missing value in the
 * difference means "as the bay".
 */
export function builtOf(area: Built, except: BuiltExcept): Built {
  const own = Object.fromEntries(
    Object.entries(except).filter(([key, value]) => !MERGED.has(key) && value !== null && value !== undefined),
  )
  const cell = area.cell || except.cell ? { ...NOTHING_OF_CELL, ...area.cell, ...told(except.cell ?? {}) } : null
  return { ...area, ...own, cell, parts: { ...area.parts, ...(except.parts ?? {}) } }
}

const MERGED: ReadonlySet<string> = new Set(['parts', 'cell'])
/** What was said; a null says "as the bay" as an empty field does. */
const told = (cell: Partial<CellFit>): Partial<CellFit> =>
  Object.fromEntries(Object.entries(cell).filter(([, value]) => value !== null && value !== undefined))

/** What a gun takes along wherever it hangs: its family and its cable. */
export interface GunBuilt {
  familyId: FamilyId | null
  cableM: number | null
}
export const withGun = (place: Built, gun: GunBuilt | null): Built =>
  gun ? { ...place, familyId: gun.familyId ?? place.familyId, cableM: gun.cableM ?? place.cableM } : place
