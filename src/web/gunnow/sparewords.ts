import { type SpareVerdictLine } from '@contract/spareguns.ts'
import { amount, cable, minutes, type Units } from '@web/format/numbers.ts'
import { capital, listed, partName } from '@web/format/words.ts'

type Amiss = SpareVerdictLine['amiss'][number]
function amissWords(a: Amiss, units: Units): string {
  switch (a.is) {
    case 'seat':
      return `does not seat here${a.has && a.wants ? `: it is ${a.has}, here it takes ${a.wants}` : ''}`
    case 'length':
      return `too short: ${cable(a.hasM, units)}, here it takes ${cable(a.wantsM, units)}`
    case 'rating':
      return `rated for ${Math.round(a.ratedAmps)} A, the procedure runs at ${Math.round(a.amps)} A`
    case 'part':
      return `another ${partName(a.kindKey)} first`
    case 'untold':
      return `nobody knows its ${partName(a.kindKey)}`
    case 'spent':
      return `its ${partName(a.kindKey)} is at its limit (${amount(a.used, a.unit, units)} done of ${amount(a.limit, a.unit, units)})`
    case 'toMend':
      return 'not said to be ready'
  }
}

/** Why a spare is right at a place, or what is wrong with it and the minutes to make it right. */
export function spareWords({ is, amiss, minutes: min }: SpareVerdictLine, units: Units): string {
  if (is === 'right') return 'Right for what is on here.'
  const all = listed(amiss.map((a) => amissWords(a, units)))
  return `${capital(all)}${min ? `; about ${minutes(min)} on the bench` : ''}.`
}
