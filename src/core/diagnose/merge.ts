import { knowledgeFaults, type Cause, type Check, type Knowledge, type Outcome, type Symptom } from './knowledge.ts'

/** What came from the trade since the shop changed its own lists. */
export interface Came {
  symptoms: number
  causes: number
  checks: number
}
type Row = Cause | Check | Outcome | Symptom

/**
 * A shop's own lists, with what ships new since it changed them: what the shop worded, weighed, ordered or took out stays as the shop has it; what it
 * left as it came is as it comes now; rows that are new come after what they follow in what ships. What ships no more stays. Where both together do
 * not hold together, the shop's own lists alone.
 * @param of what shipped when the shop changed them last (`base`), its own lists, and what ships now
 * @param equal whether two values are the same through and through
 */
export function withNews(of: Three<Knowledge>, equal: Equal): { knowledge: Knowledge; came: Came } {
  const { base, own, ships } = of
  const all: Knowledge = {
    symptoms: mergeRows(
      { base: base.symptoms, own: own.symptoms, ships: ships.symptoms },
      (row) => mergeSymptom(row, equal),
      equal,
    ),
    causes: mergeRows(
      { base: base.causes, own: own.causes, ships: ships.causes },
      (row) => mergeRow(row, equal),
      equal,
    ),
    checks: mergeRows(
      { base: base.checks, own: own.checks, ships: ships.checks },
      (row) => mergeCheck(row, equal),
      equal,
    ),
  }
  const knowledge = pruned(all)
  if (knowledgeFaults(knowledge).length > knowledgeFaults(own).length)
    return { knowledge: own, came: { symptoms: 0, causes: 0, checks: 0 } }
  const more = (list: (k: Knowledge) => readonly { key: string }[]) => newKeys(list(own), list(knowledge)).length
  return {
    knowledge,
    came: { symptoms: more((k) => k.symptoms), causes: more((k) => k.causes), checks: more((k) => k.checks) },
  }
}

/** Base, the shop's own, and what ships now. */
export interface Three<T> {
  base: T
  own: T
  ships: T
}
type Equal = (a: unknown, b: unknown) => boolean
const keysOf = (list: readonly { key: string }[]) => list.map((x) => x.key)
const newKeys = (before: readonly { key: string }[], after: readonly { key: string }[]) => {
  const known = new Set(keysOf(before))
  return keysOf(after).filter((key) => !known.has(key))
}

function mergeRows<T extends Row>(of: Three<readonly T[]>, merge: (row: Three<T>) => T, equal: Equal): T[] {
  const by = (list: readonly T[]) => new Map(list.map((row) => [row.key, row]))
  const [bases, owns, shipped] = [by(of.base), by(of.own), by(of.ships)]
  const order = mergeOrder(inThree(of, keysOf))
  // A row that the shop changed stays, though it ships no more.
  const stays = keysOf(of.own).filter((key) => !order.includes(key) && !equal(bases.get(key), owns.get(key)))
  return [...order, ...stays].flatMap((key) => {
    const [base, own, ships] = [bases.get(key), owns.get(key), shipped.get(key)]
    if (own && base && ships) return [merge({ base, own, ships })]
    return own ?? ships ?? []
  })
}

/** The shop's own order, new keys after the one they follow in what ships; left as it came, the order in which it comes now. What the shop took out stays out. */
function mergeOrder({ base, own, ships }: Three<readonly string[]>): string[] {
  if (base.join() === own.join()) return [...ships]
  const order = own.filter((key) => ships.includes(key) || !base.includes(key))
  ships.forEach((key, i) => {
    if (base.includes(key) || order.includes(key)) return
    const before = ships.slice(0, i).findLast((k) => order.includes(k))
    order.splice(before === undefined ? 0 : order.indexOf(before) + 1, 0, key)
  })
  return order
}

/** Field by field: the shop's where the shop changed it, else as it comes now. */
function mergeRow<T extends object>({ base, own, ships }: Three<T>, equal: Equal): T {
  const fields = new Set([...Object.keys(own), ...Object.keys(ships)]) as Set<keyof T>
  const merged: Partial<T> = {}
  for (const field of fields) {
    const value = equal(base[field], own[field]) ? ships[field] : own[field]
    if (value !== undefined) merged[field] = value
  }
  return merged as T
}

function mergeSymptom(of: Three<Symptom>, equal: Equal): Symptom {
  const { own, ships } = of
  const maps = <F extends 'odds' | 'source'>(field: F) =>
    own[field] && ships[field]
      ? {
          [field]: mergeRow(
            inThree(of, (s) => s[field] ?? {}),
            equal,
          ),
        }
      : {}
  return {
    ...mergeRow(of, equal),
    causes: mergeOrder(inThree(of, (s) => s.causes)),
    ...maps('odds'),
    ...maps('source'),
  }
}

function mergeCheck(of: Three<Check>, equal: Equal): Check {
  const outcomes = mergeRows(
    inThree(of, (c) => c.outcomes),
    (o) => mergeOutcome(o, equal),
    equal,
  )
  // Where all is well stands last, whatever came.
  const well = of.own.outcomes.at(-1)?.key
  return {
    ...mergeRow(of, equal),
    outcomes: [...outcomes.filter((o) => o.key !== well), ...outcomes.filter((o) => o.key === well)],
  }
}
const mergeOutcome = (of: Three<Outcome>, equal: Equal): Outcome => ({
  ...mergeRow(of, equal),
  points: mergeOrder(inThree(of, (o) => o.points)),
})
const inThree = <T, U>({ base, own, ships }: Three<T>, part: (of: T) => U): Three<U> => ({
  base: part(base),
  own: part(own),
  ships: part(ships),
})

/** What points at a row that the shop took out, or that came and is named by nothing, is left out. */
function pruned({ symptoms, causes, checks }: Knowledge): Knowledge {
  const listed = new Set(symptoms.flatMap((s) => s.causes))
  const kept = causes.filter((c) => listed.has(c.key))
  const known = new Set(keysOf(kept))
  const looks = checks.flatMap((c) => {
    const outcomes = c.outcomes.map((o) => ({ ...o, points: o.points.filter((p) => known.has(p)) }))
    const speaks = outcomes.some((o) => o.points.length > 0)
    return speaks || c.outcomes.every((o) => o.points.length === 0) ? [{ ...c, outcomes }] : []
  })
  const had = new Set(keysOf(looks))
  const hasLook = (key: string | undefined) => key === undefined || had.has(key)
  return {
    symptoms: symptoms.map((s) => {
      const still = (of: object | undefined) =>
        Object.fromEntries(Object.entries(of ?? {}).filter(([key]) => known.has(key) && s.causes.includes(key)))
      return {
        ...s,
        causes: s.causes.filter((c) => known.has(c)),
        ...(s.odds ? { odds: still(s.odds) as Symptom['odds'] } : {}),
        ...(s.source ? { source: still(s.source) as Symptom['source'] } : {}),
        ...(s.told ? { told: s.told.filter(hasLook) } : {}),
      } as Symptom
    }),
    causes: kept,
    checks: looks,
  }
}
