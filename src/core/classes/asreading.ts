import { type ReadingKey } from '@core/reading/keys.ts'
import { type JointFault } from '@core/rightparts/joints.ts'
import { RIGHT, type FoundAtBooth, type HandItemKey } from './items.ts'

/** What a look before class says as a reading that gun, Floor and Down know; what none is read of stands in the look alone. */
const AS_READING: Partial<Record<HandItemKey, { what: ReadingKey; grades: Readonly<Record<string, string>> }>> = {
  gunHome: { what: 'pinHome', grades: { [RIGHT]: 'home', halfOut: 'half' } },
  cable: { what: 'layout', grades: { [RIGHT]: 'straight', coiled: 'coiled', towed: 'bentAtMachine' } },
  flow: { what: 'gasFlow', grades: { [RIGHT]: 'asLeft', changed: 'other' } },
  clamp: { what: 'clamp', grades: { [RIGHT]: 'bare', loose: 'loose', off: 'loose' } },
}
export interface ReadAs {
  what: ReadingKey
  grade: string
  /** As it was found; or as it is after it was put right, which counts as no look of its own. */
  is: 'found' | 'putRight'
}
/** Readings that a look before class makes: as found, and where it was put right at once, as it is now. */
export function readingsOf(found: FoundAtBooth, still: readonly HandItemKey[]): ReadAs[] {
  const keys = Object.keys(found) as HandItemKey[]
  return keys.flatMap((key): ReadAs[] => {
    const as = AS_READING[key]
    const grade = as?.grades[found[key] ?? '']
    const right = as?.grades[RIGHT]
    if (!as || !grade || !right) return []
    const isPutRight = found[key] !== RIGHT && !still.includes(key)
    return [
      { what: as.what, grade, is: 'found' },
      ...(isPutRight ? [{ what: as.what, grade: right, is: 'putRight' as const }] : []),
    ]
  })
}
/** What a tip found loose or too tight says of how tips are put on. */
export const tipFault = (found: FoundAtBooth): JointFault | null =>
  found.tip === 'loose' ? 'cameLoose' : found.tip === 'overTight' ? 'seized' : null
