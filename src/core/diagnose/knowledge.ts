import { type CausePlace, type OutReason, type Position } from '@core/path/columns.ts'
import { type DrawingKey } from '@core/drawings/drawing.ts'
import { DRAWINGS } from '@core/drawings/all.ts'
import { type GuideKey } from '@core/guide/keys.ts'
import { type Touched } from './touched.ts'
import { type Hazard } from '@core/guide/cautions.ts'

/**
 * Why a gun stops, as data and not as code: symptoms in plain words, causes on the wire path, checks with what each answer tells, fixes.
 * A shop may edit every word, minute and likelihood; what ships is a guess and is marked so.
 */
export const EFFORTS = ['E0', 'E1', 'E2', 'E3', 'E4'] as const
export type Effort = (typeof EFFORTS)[number]
/** Minutes of a practised hand. Guesses. */
export const EFFORT_MIN: Record<Effort, number> = { E0: 0.3, E1: 1.5, E2: 5, E3: 15, E4: 30 }

/** What a cause is of. `hand` and `elsewhere` are exits: not the feed, and never the words for a person. */
export const CAUSE_KINDS = ['feed', 'frontEnd', 'gas', 'circuit', 'machine', 'hand', 'elsewhere'] as const
export type CauseKind = (typeof CAUSE_KINDS)[number]
/** What kind of sign an answer is: two independent kinds are wanted before the dearest verdicts. */
export const SIGNS = ['look', 'feel', 'arc', 'reading', 'test', 'swap', 'asked'] as const
export type Sign = (typeof SIGNS)[number]

export interface Fix {
  do: string
  effort: Effort
  /** What a tap logs when it is done; null: nothing on the path changes. */
  act: 'changed' | 'cleaned' | null
  position: Position | null
  hazards: readonly Hazard[]
  /** Somebody licensed, or the maker: it is not done here. */
  isLicensed?: boolean
  /** Done by trials, one value at a time. */
  isTuned?: boolean
  /** Fixes that are one act, however they are worded, share a name. */
  one?: string
  /** The look that comes before it, where it can be had. */
  wants?: string
  /** The look by which it is seen that this is right now: it follows where the trouble stays. */
  proof?: string
}
export interface Cause {
  key: string
  says: string
  at: CausePlace
  kind: CauseKind
  fix: Fix
}
export interface Outcome {
  key: string
  /** In words of what is seen. */
  says: string
  /** Causes it speaks for. */
  points: readonly string[]
  /** Panel of the check's drawing that shows it. */
  panel?: number
  /** Where it is seen it can hardly be anything else. */
  isSure?: boolean
}
export interface Check {
  key: string
  do: string
  how: string
  effort: Effort
  /** Minutes where they differ from those of its effort. */
  minutes?: number
  sign: Sign
  hazards: readonly Hazard[]
  drawing: DrawingKey | null
  /** The last speaks for nothing: what is seen when all is well there. */
  outcomes: readonly Outcome[]
  /** Chance that it shows its cause where that is there. */
  shows: number
  /** It is a fix by itself: any answer but the last means that it runs again, with this position changed. */
  mends?: Position
  /** Symptoms with which it cannot be done: no arc is watched where no wire comes. */
  notFor?: readonly string[]
  /** The only symptoms with which it is had. */
  onlyFor?: readonly string[]
  /** It narrows what another look found: that one is had before. */
  after?: string
  /** The guide by which it is done, where it is more than a look. */
  guide?: GuideKey
  /** Why the part came out that it changes; else it was to try. */
  outReason?: OutReason
}
export const PICTURES = [
  ...(['stopped', 'jerks', 'nest', 'stuck', 'holes', 'start'] as const),
  ...(['bead', 'nozzle', 'liner', 'robot', 'else'] as const),
] as const
export type Picture = (typeof PICTURES)[number]
/** How often a cause is behind a symptom, as a hand says it: each twice as often as the next. */
export const ODDS = ['often', 'atTimes', 'seldom', 'rarely'] as const
export type Odds = (typeof ODDS)[number]
/** Where it comes from: several who do the work name it, one school or maker does, or it follows from how wire and gas run. */
export const SOURCES = ['practice', 'taught', 'reckoned'] as const
export type Source = (typeof SOURCES)[number]
export interface Symptom {
  key: string
  says: string
  picture: Picture
  /** In a sensible order, the likeliest first. */
  causes: readonly string[]
  /** How often each is behind it; without, the chance halves down the list. */
  odds?: Readonly<Record<string, Odds>>
  /** Where each of its causes comes from; what is not named comes from practice. */
  source?: Readonly<Record<string, Source>>
  /** What it says was touched last; `unknown`: it asks for no such thing. Left out: it is asked. */
  touched?: Touched
  /** Looks that it has told already. */
  told?: readonly string[]
  /** What comes before every look: wire in the rolls is cut out, a part that will not go is not forced. */
  first?: string
  /** Of robots only. */
  only?: 'cell'
  /** The panel of a drawing that shows it, where several are told apart by eye. */
  drawn?: readonly [DrawingKey, panel: number]
}
export interface Knowledge {
  symptoms: readonly Symptom[]
  causes: readonly Cause[]
  checks: readonly Check[]
}
/** Whether an answer of a check speaks for any of these causes. */
export const isAbout = (check: Pick<Check, 'outcomes'>, causes: ReadonlySet<string>): boolean =>
  check.outcomes.some((o) => o.points.some((p) => causes.has(p)))
/** The chance halves down a list so far; who stands lower has the share of the seventh. */
const LOWEST = 6
/** Shares of a symptom's causes where nothing else is known: halving down the list. They sum to 1. @example halving(3) // 4/7, 2/7, 1/7 */
export const halving = (n: number): number[] => shared(Array.from({ length: n }, (_, i) => 2 ** -Math.min(i, LOWEST)))
/** The share of each cause by how often it is behind the symptom, in the order of its list; halving where nobody said how often. They sum to 1. */
export function usualShares({ causes, odds }: Pick<Symptom, 'causes' | 'odds'>): number[] {
  if (!odds) return halving(causes.length)
  return shared(causes.map((key) => 2 ** -ODDS.indexOf(odds[key] ?? 'seldom')))
}
function shared(weights: readonly number[]): number[] {
  const sum = weights.reduce((a, b) => a + b, 0)
  return weights.map((w) => w / sum)
}
export const minutesOf = (check: Pick<Check, 'effort' | 'minutes'>) => check.minutes ?? EFFORT_MIN[check.effort]
export const fixMinutes = ({ fix }: Pick<Cause, 'fix'>) => EFFORT_MIN[fix.effort]

/** Said where it points elsewhere, and by causes that nothing points at; a swap that mends hardly ever does so by mistake. */
export const FALSE_SIGN = 0.05
const FALSE_MEND = 0.005
const FALSE_SURE = 0.004

/**
 * Chance of each outcome of a check where one cause is there. Pointed at: `shows`, shared where several outcomes point at it; else 0.05 to each
 * outcome that points at something (0.004 where it can hardly be anything else), the rest to the last. They sum to 1.
 * @example outcomeChances(tipCheck, 'tipWorn') // [0.8, 0.2]
 */
export function outcomeChances(check: Check, cause: string): number[] {
  const last = check.outcomes.length - 1
  const pointing = check.outcomes.filter((o) => o.points.includes(cause)).length
  const by = check.mends ? FALSE_MEND : FALSE_SIGN
  const wrong = (o: Outcome) => (o.isSure ? Math.min(by, FALSE_SURE) : by)
  const chances = check.outcomes.map((o, i) =>
    i === last ? 0 : pointing === 0 ? wrong(o) : o.points.includes(cause) ? check.shows / pointing : wrong(o) / last,
  )
  const given = chances.reduce((a, b) => a + b, 0)
  chances[last] = 1 - given
  return chances
}

export interface KnowledgeFault {
  where: string
  says: string
}
type Say = (where: string, says: string) => void
/** What is wrong with it, in words with the place; empty: it can be used. */
export function knowledgeFaults(knowledge: Knowledge): KnowledgeFault[] {
  const faults: KnowledgeFault[] = []
  const say: Say = (where, says) => void faults.push({ where, says })
  sayTwice(say, 'cause', knowledge.causes)
  sayTwice(say, 'check', knowledge.checks)
  sayTwice(say, 'symptom', knowledge.symptoms)
  causeFaults(knowledge, say)
  symptomFaults(knowledge, say)
  checkFaults(knowledge, say)
  return faults
}
function sayTwice(say: Say, what: string, list: readonly { key: string }[]): void {
  const keys = list.map((x) => x.key)
  keys
    .filter((k, i) => keys.indexOf(k) !== i)
    .forEach((k) => say(`${what} ${k}`, 'stands there twice; give one another key'))
}
function causeFaults({ symptoms, causes, checks }: Knowledge, say: Say): void {
  const pointed = new Set(checks.flatMap((c) => c.outcomes.flatMap((o) => o.points)))
  const listed = new Set(symptoms.flatMap((s) => s.causes))
  for (const { key, fix } of causes) {
    if (!listed.has(key)) say(`cause ${key}`, 'no symptom has it: put it under one, or take it out')
    if (!pointed.has(key)) say(`cause ${key}`, 'no check shows it: point an outcome at it')
    if (fix.act && !fix.position) say(`cause ${key}`, 'its fix logs an act and says no part: say which')
    for (const look of [fix.proof, fix.wants])
      if (look && !checks.some((c) => c.key === look)) say(`cause ${key}`, `goes by a check that is not there: ${look}`)
  }
}
function symptomFaults({ symptoms, causes, checks }: Knowledge, say: Say): void {
  const known = new Set(causes.map((c) => c.key))
  for (const s of symptoms) {
    for (const key of [...(s.told ?? []), ...(s.first ? [s.first] : [])])
      if (!checks.some((c) => c.key === key)) say(`symptom ${s.key}`, `names a check that is not there: ${key}`)
    for (const key of Object.keys({ ...s.odds, ...s.source }))
      if (!s.causes.includes(key)) say(`symptom ${s.key}`, `says how often it is ${key}, which is none of its causes`)
    if (s.causes.length === 0) say(`symptom ${s.key}`, 'has no cause')
    if (s.drawn && !DRAWINGS[s.drawn[0]].panels[s.drawn[1]])
      say(`symptom ${s.key}`, `is shown by panel ${s.drawn[1] + 1} of ${s.drawn[0]}, which has fewer`)
    sayTwice(
      say,
      `cause of ${s.key}:`,
      s.causes.map((key) => ({ key })),
    )
    s.causes
      .filter((c) => !known.has(c))
      .forEach((c) => say(`symptom ${s.key}`, `names a cause that is not there: ${c}`))
  }
}
function checkFaults({ symptoms, causes, checks }: Knowledge, say: Say): void {
  const known = new Set(causes.map((c) => c.key))
  for (const c of checks) {
    const where = `check ${c.key}`
    const last = c.outcomes.at(-1)
    if (c.outcomes.length < 2) say(where, 'needs two outcomes or more')
    if (c.outcomes.length - 1 > MOST_WRONG / FALSE_SIGN) say(where, 'has too many outcomes')
    if (last && last.points.length > 0)
      say(where, 'its last outcome is the one where all is well: it may point at nothing')
    if (!(c.shows > FALSE_SIGN && c.shows <= 0.99)) say(where, 'shows its cause with a chance over 0.05, up to 0.99')
    sayTwice(say, `outcome of ${c.key}:`, c.outcomes)
    for (const key of [...(c.notFor ?? []), ...(c.onlyFor ?? [])])
      if (!symptoms.some((s) => s.key === key)) say(where, `speaks of a symptom that is not there: ${key}`)
    if (c.after && !checks.some((other) => other.key === c.after))
      say(where, `comes after a check that is not there: ${c.after}`)
    const panels = c.drawing ? DRAWINGS[c.drawing].panels.length : 0
    for (const o of c.outcomes)
      if (o.panel !== undefined && o.panel >= panels)
        say(where, `"${o.says}" is shown by panel ${o.panel + 1}, of ${panels} that its drawing has`)
    for (const o of c.outcomes)
      o.points
        .filter((p) => !known.has(p))
        .forEach((p) => say(where, `"${o.says}" points at a cause that is not there: ${p}`))
  }
}
const MOST_WRONG = 0.9
