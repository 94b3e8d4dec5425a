import { Z_95 } from '@core/stats/normal.ts'
import { fitAft } from '@core/life/aft.ts'
import { compareGroups } from '@core/life/compare.ts'
import { type SharedGap } from '@core/life/fitted.ts'
import { LIFE_BYS, type LifeAnswer, type LifeBy } from '@contract/life.ts'
import { type LevelOf } from './groups.ts'
import { type Life } from './lives.ts'

export interface Told {
  life: Life
  gap: SharedGap
}
/** So few worn ones say nothing of a level. */
const LEAST_WORN = 5
const MOST_LEVELS = 8
const isEnd = ({ gap }: Told) => gap.end === 'worn' || gap.end === 'either'

export interface Group {
  key: string
  name: string
  told: Told[]
}
/** Lives by what they are told apart by, most first; nobody said: left out. */
export function groupsOf(all: readonly Told[], by: LifeBy, levelOf: LevelOf): Group[] {
  const groups = new Map<string, Group>()
  for (const told of all) {
    const level = levelOf(told.life, by)
    if (!level) continue
    const group = groups.get(level.key) ?? { ...level, told: [] }
    group.told.push(told)
    groups.set(level.key, group)
  }
  return [...groups.values()].sort((a, b) => b.told.length - a.told.length).slice(0, MOST_LEVELS)
}

/** Each group against the larger one that differs in least else, with what moved along. */
export function comparedOf(groups: readonly Group[], at: { by: LifeBy; levelOf: LevelOf }): LifeAnswer['compared'] {
  return groups.slice(1).flatMap((second, i) => {
    const bases = groups.slice(0, i + 1).map((first) => ({ first, moved: movedWith(first, second, at) }))
    const [base] = bases.sort((a, b) => a.moved.length - b.moved.length)
    const made = base ? compareGroups(gapsIn(base.first), gapsIn(second)) : null
    if (!base || !made) return []
    const { p: _, ...compared } = made
    return [{ ...compared, first: base.first.name, second: second.name, movedWith: base.moved }]
  })
}
const gapsIn = (g: Group) => g.told.map((t) => t.gap)
/** Always different between the two, and hardly ever within one: it may be why as well. */
function movedWith(first: Group, second: Group, at: { by: LifeBy; levelOf: LevelOf }): LifeBy[] {
  return LIFE_BYS.filter((by) => by !== at.by && !isOfTheSame(at.by, by)).filter((by) => {
    const [a, b] = [mostly(first, by, at.levelOf), mostly(second, by, at.levelOf)]
    return a !== null && b !== null && a !== b
  })
}
/** What is named by the other, and so moves along of itself: a class by its areas, a part by its metal. */
const isOfTheSame = (by: LifeBy, other: LifeBy) =>
  (by === 'class' && other === 'area') || (by === 'part' && other === 'metal') || (by === 'metal' && other === 'part')
const MOSTLY = 0.85
function mostly(group: Group, by: LifeBy, levelOf: LevelOf): string | null {
  const counts = new Map<string, number>()
  for (const { life } of group.told) {
    const key = levelOf(life, by)?.key
    if (key) counts.set(key, (counts.get(key) ?? 0) + 1)
  }
  const [top] = [...counts].sort((a, b) => b[1] - a[1])
  return top && top[1] >= MOSTLY * group.told.length ? top[0] : null
}

/** Told of in the regression, first come first kept where two tell the same. */
const TERMS: readonly LifeBy[] = [
  ...(['part', 'wire', 'mode', 'antiSpatter', 'gas', 'coat', 'cable'] as const),
  ...(['layout', 'wiper', 'lot', 'family', 'class'] as const),
]

/**
 * How much longer it lasts, all else equal: Weibull regression over what differs here, use counted times the logging share. Things that always come
 * together are named together and only the first is told. How often a part was cleaned is none of them: what closes fast is cleaned often, so that the
 * log alone would blame the cleaning.
 */
export function longerOf(all: readonly Told[], levelOf: LevelOf): Pick<LifeAnswer, 'longer' | 'together'> {
  const some = all.filter((t) => t.gap.parts === 1 && !t.gap.isAgeUnknown && t.gap.high > 0)
  const { kept, together } = apart(TERMS.flatMap((by) => factorOf(some, by, levelOf) ?? []))
  // What can still not be told apart is left out, the last named first.
  for (let n = kept.length; n >= 0; n--) {
    const columns = kept.slice(0, n).flatMap((f) => f.columns)
    const longer = columns.length > 0 ? regressed(some, columns) : []
    if (longer) return { longer, together }
  }
  return { longer: [], together }
}
function regressed(some: readonly Told[], columns: readonly Column[]): LifeAnswer['longer'] | null {
  const fit = fitAft({
    time: some.map((t) => ((t.gap.low + t.gap.high) / 2) * t.gap.share),
    event: some.map((t) => (isEnd(t) ? 1 : 0)),
    columns: [some.map(() => 1), ...columns.map((c) => c.values)],
  })
  if (!fit.ok) return null
  return columns.map(({ by, level, against }, i) => {
    const [log, se] = [fit.coefficients[i + 1] ?? 0, Math.sqrt(fit.covariance[i + 1]?.[i + 1] ?? 0)]
    return { by, level, against, ratio: Math.exp(log), low: Math.exp(log - Z_95 * se), high: Math.exp(log + Z_95 * se) }
  })
}
interface Column {
  by: LifeBy
  level: string
  against: string
  values: number[]
}
interface Factor {
  by: LifeBy
  columns: Column[]
  /** Which lives stand together, as one text: two factors with the same text tell the same. */
  pattern: string
}
function factorOf(some: readonly Told[], by: LifeBy, levelOf: LevelOf): Factor | null {
  const levels = some.map((t) => levelOf(t.life, by))
  if (levels.some((l) => l === null)) return null
  const worn = new Map<string, { name: string; n: number }>()
  levels.forEach((l, i) => {
    if (!l) return
    const told = some[i]
    const count = worn.get(l.key) ?? { name: l.name, n: 0 }
    count.n += told && isEnd(told) ? 1 : 0
    worn.set(l.key, count)
  })
  const usable = [...worn].filter(([, c]) => c.n >= LEAST_WORN).sort((a, b) => b[1].n - a[1].n)
  if (usable.length < 2 || usable.length !== worn.size || usable.length > MOST_LEVELS) return null
  const [base, ...others] = usable
  return {
    by,
    pattern: levels.map((l) => usable.findIndex(([k]) => k === l?.key)).join(''),
    columns: others.map(([key, { name }]) => ({
      ...{ by, level: name, against: base?.[1].name ?? '' },
      values: levels.map((l) => (l?.key === key ? 1 : 0)),
    })),
  }
}
/** Told apart as far as they can be: one whose levels each lie within one level of another tells nothing beside it, and is named with it. */
function apart(factors: readonly Factor[]): { kept: Factor[]; together: LifeBy[][] } {
  const groups: { factor: Factor; bys: LifeBy[] }[] = []
  for (const f of factors) {
    const group = groups.find(
      ({ factor }) => isWithin(f.pattern, factor.pattern) || isWithin(factor.pattern, f.pattern),
    )
    if (group) group.bys.push(f.by)
    else groups.push({ factor: f, bys: [f.by] })
  }
  return { kept: groups.map((g) => g.factor), together: groups.map((g) => g.bys).filter((bys) => bys.length > 1) }
}
function isWithin(fine: string, coarse: string): boolean {
  const at = new Map<string, string>()
  for (let i = 0; i < fine.length; i++) {
    const [a, b] = [fine[i] ?? '', coarse[i] ?? '']
    const known = at.get(a)
    if (known !== undefined && known !== b) return false
    at.set(a, b)
  }
  return true
}
