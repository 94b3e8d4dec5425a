/** A way to have wire: spools of some size, big spools, a drum. Money in minor units. */
export interface WirePackage {
  kg: number
  pricePerKgMinor: number
  /** Payoff, conduit, hood, stand, for all the guns of the group; paid once. */
  onceMinor: number
  /** Floor it takes a year. */
  floorMinorPerYear: number
}
export interface WireUse {
  kgPerYear: number
  guns: number
  /** A change of it: hands, and the gun standing. */
  changeMin: number
  standMinorPerHour: number
  labourMinorPerHour: number
  /** Left on it when it comes off, because no job is short enough. */
  shortKg: number
}
export interface PackageYear {
  changes: number
  /** A year of each, and all together. */
  changeMinor: number
  shortMinor: number
  wireMinor: number
  equipmentMinor: number
  floorMinor: number
  stockMinor: number
  totalMinor: number
}

/** Equipment is written off over so many years; money lies still at a tenth a year. Guesses. */
const [YEARS, KEEP_MONEY] = [5, 0.1]

/**
 * What a year of wire costs in a package: changes × minutes × (standing + hands), short ends, wire, equipment over five years, floor, and the wire that lies
 * on guns and one package ahead of each. Misuse throws.
 * @example packageYear({ kg: 15, pricePerKgMinor: 300, onceMinor: 0, floorMinorPerYear: 0 }, use).changes
 */
export function packageYear(p: WirePackage, use: WireUse): PackageYear {
  if (!(p.kg > 0 && p.pricePerKgMinor >= 0 && p.onceMinor >= 0 && p.floorMinorPerYear >= 0))
    throw new RangeError(`packageYear: expected a package of some weight and costs not below zero, got ${p.kg} kg`)
  if (!(use.kgPerYear >= 0 && use.guns >= 1 && use.shortKg >= 0))
    throw new RangeError('packageYear: expected a use not below zero on one gun at least')
  const short = Math.min(use.shortKg, p.kg * 0.5)
  const changes = use.kgPerYear / (p.kg - short)
  const bought = changes * p.kg
  const parts = {
    changeMinor: (changes * use.changeMin * (use.standMinorPerHour + use.labourMinorPerHour)) / 60,
    shortMinor: changes * short * p.pricePerKgMinor,
    wireMinor: (bought - changes * short) * p.pricePerKgMinor,
    equipmentMinor: p.onceMinor / YEARS,
    floorMinor: p.floorMinorPerYear,
    // Half a package on each gun on average, and one ahead.
    stockMinor: 1.5 * p.kg * use.guns * p.pricePerKgMinor * KEEP_MONEY,
  }
  return { changes, ...parts, totalMinor: Object.values(parts).reduce((a, b) => a + b, 0) }
}

/** Kilograms a year from which the second is the cheaper; null: never, 0: always. Both grow straight with use, so that one crossing is all there is. */
export function breakEvenKg(first: WirePackage, second: WirePackage, use: WireUse): number | null {
  const at = (kgPerYear: number) =>
    packageYear(second, { ...use, kgPerYear }).totalMinor - packageYear(first, { ...use, kgPerYear }).totalMinor
  const [fixed, slope] = [at(0), at(1) - at(0)]
  if (fixed <= 0 && slope <= 0) return 0
  if (slope >= 0) return null
  return Math.max(0, -fixed / slope)
}
