import { type LogLine } from '@contract/logbook.ts'
import { partName } from '@web/format/words.ts'

export interface DayCount {
  says: string
  n: number
}

/**
 * What a day came to: parts put on and cleaned by kind, stops, readings, spools; then which guns had hands on them most. Lines taken back do not count.
 * @example dayCounts(lines).did // [{ says: 'tip put on', n: 4 }, …]
 */
export function dayCounts(lines: readonly LogLine[]): { did: DayCount[]; guns: DayCount[] } {
  const did = new Map<string, number>()
  const guns = new Map<string, number>()
  const add = (to: Map<string, number>, says: string, n = 1) => to.set(says, (to.get(says) ?? 0) + n)
  for (const line of lines) {
    if (line.standing === 'withdrawn') continue
    const said = saidOf(line.fact)
    if (said) add(did, said.says, said.n)
    if (line.stationName) add(guns, line.stationName)
  }
  return {
    did: ranked(did),
    guns: ranked(guns)
      .filter((g) => g.n > 1)
      .slice(0, MOST_GUNS),
  }
}
const MOST_GUNS = 6
const ranked = (counts: ReadonlyMap<string, number>): DayCount[] =>
  [...counts].map(([says, n]) => ({ says, n })).sort((a, b) => b.n - a.n || (a.says < b.says ? -1 : 1))

function saidOf(fact: LogLine['fact']): DayCount | null {
  switch (fact.kind) {
    case 'fitted':
      return { says: `${partName(fact.position)} put on`, n: fact.count }
    case 'cleaned':
      return { says: `${partName(fact.position)} cleaned`, n: 1 }
    case 'stopped':
      return { says: 'went down', n: 1 }
    case 'reading':
      return { says: 'read', n: 1 }
    case 'wireLoaded':
      return { says: 'spool put on', n: 1 }
    case 'confirmed':
      return { says: 'looked at', n: 1 }
    case 'nearMiss':
      return { says: 'near miss', n: 1 }
    default:
      return null
  }
}
