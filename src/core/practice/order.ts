import { planChange } from '@core/changeover/plan.ts'
import { stepsOf } from '@core/changeover/steps.ts'
import { USUAL_RULES } from '@core/guide/rules.ts'
import { type Condition, type Step } from '@core/guide/step.ts'
import { makeId } from '@core/ids/id.ts'
import { type KindKey } from '@core/path/columns.ts'
import { seedOf, shuffled } from '@core/random/random.ts'
import { type Stocked } from '@core/rightparts/check.ts'
import { type PartFit, type Setup, type WireFacts } from '@core/rightparts/facts.ts'
import { UNTOLD_FAMILY, UNTOLD_FEEDER, UNTOLD_PART, UNTOLD_WIRE } from '@core/rightparts/untold.ts'
import { rightBuild, type Build, type WireOn } from './hands.ts'

/** What a change of wire is made of, coarse enough to be put in order by a hand: each stands for steps of the guide that a real gun gets. */
export const ORDER_ACTS = [
  'isolate',
  'front',
  'wireBack',
  'spoolOff',
  'rolls',
  'liner',
  'spoolOn',
  'thread',
  'feed',
  'tension',
  'close',
] as const
export type OrderAct = (typeof ORDER_ACTS)[number]

/** Which act a step of the guide is part of; those of the list at the end are in none, the liner’s are all from its screw to the gun back in. */
const ACT_OF: Readonly<Record<string, OrderAct>> = {
  ...{ isolate: 'isolate', nozzleOff: 'front', snip: 'front', tipOff: 'front' },
  ...{ armOpen: 'wireBack', wireOut: 'wireBack', spoolOff: 'spoolOff' },
  ...{ 'swap-rolls': 'rolls', turnRolls: 'rolls', 'swap-outlet': 'rolls', guideOut: 'rolls', guideBack: 'rolls' },
  ...{ spoolOn: 'spoolOn', thread: 'thread', armClosed: 'thread', on: 'feed', feed: 'feed', tension: 'tension' },
  ...{ offAgain: 'close', tipOn: 'close', 'swap-tip': 'close', nozzleOn: 'close' },
}
/** First and last of the liner’s. */
const LINER_STEPS = ['screwOut', 'gunIn'] as const
function actsOf(steps: readonly Step[]): (OrderAct | null)[] {
  const [from, to] = LINER_STEPS.map((key) => steps.findIndex((s) => s.key === key)) as [number, number]
  return steps.map((s, i) => {
    if (s.key.startsWith('read-roll')) return 'rolls'
    if (from >= 0 && i >= from && i <= to) return 'liner'
    return ACT_OF[s.key] ?? null
  })
}

const part = (kindKey: KindKey, code: string, own: { fit: Partial<PartFit>; sizeMm?: number }): Stocked => ({
  // Nothing is kept under it: it only tells one from another.
  id: makeId('part', seedOf(`${kindKey} ${code}`), () => 0),
  ...{ code, name: code, kindKey, familyId: null, sizeMm: own.sizeMm ?? null, onHand: 1, priceMinor: null },
  fit: { ...UNTOLD_PART, ...own.fit },
})
/** The parts of a build that go by the wire. */
function partsOf({ rolls, outletMm, liner, tipMm, wire }: Build, linerM: number): Stocked[] {
  const { groove, sizeMm } = rolls
  const shape = groove === 'knurled' ? ('knurled V' as const) : groove
  const isForAluminium = wire.material.startsWith('aluminium')
  const groovesOf = { shape, sizeMm }
  return [
    part('rolls', `${groove} ${sizeMm}`, { fit: { grooves: [groovesOf, groovesOf] } }),
    part('outlet', `${outletMm}`, { fit: { wireMm: [outletMm, outletMm], material: 'polymer' } }),
    part('liner', `${liner.kind} ${liner.span.join('-')}`, {
      fit: { linerKind: liner.kind, wireMm: [...liner.span], lengthM: linerM },
    }),
    part('tip', `${tipMm}${isForAluminium ? ' alu' : ''}`, { fit: { isForAluminium }, sizeMm: tipMm }),
  ]
}
const CABLE_M = 4
const DENSITY = { aluminium: 2.66, steel: 7.85 }
function wireOf({ material, diameterMm }: WireOn): WireFacts {
  const construction = material.startsWith('aluminium')
    ? 'aluminium'
    : material === 'flux-cored'
      ? 'flux-cored'
      : 'solid'
  return {
    ...{
      id: makeId('wire', seedOf(`${construction} ${diameterMm}`), () => 0),
      name: `${material} ${diameterMm}`,
    },
    ...{ construction, diameterMm, densityGPerCm3: construction === 'aluminium' ? DENSITY.aluminium : DENSITY.steel },
    fit: UNTOLD_WIRE,
  }
}
function setupOf(build: Build): Setup {
  const family = { ...UNTOLD_FAMILY, linerHeldBy: 'set screw' as const, linerRule: 'A' as const, neckMm: 150 }
  return {
    wire: wireOf(build.wire),
    family: { id: makeId('family', 1, () => 0), name: '', fit: family },
    feeder: { id: '', name: '', ...UNTOLD_FEEDER, rollCount: 4, hasJog: true },
    ...{ procedure: null, mode: null, gas: build.gas, cableM: CABLE_M, settings: {} },
    parts: Object.fromEntries(partsOf(build, CABLE_M + 1).map((p) => [p.kindKey, p])),
    ...{ polarityBy: 'wire', tipStands: 'byMode' },
  }
}
/** Their words are not shown: the hand orders acts. */
const NO_WORDS = {
  ...{
    minutesOf: () => 1,
    sizeWord: String,
    lengthWord: String,
    ruleWord: String,
    spanWord: String,
    roughWord: String,
  },
}

export interface ChangeOrder {
  steps: readonly { act: OrderAct; step: Step }[]
  /** As the guide has them. */
  acts: readonly OrderAct[]
}
/** The steps of the guide from one wire to the other on a gun with four rolls, by act. */
export function changeOrder(from: Build, to: WireOn): ChangeOrder {
  const plan = planChange(
    setupOf(from),
    { wire: wireOf(to), gas: rightBuild(to).gas },
    { parts: partsOf(rightBuild(to), CABLE_M + 1) },
  )
  const all = stepsOf(plan, USUAL_RULES, NO_WORDS)
  const acts = actsOf(all)
  const steps = all.flatMap((step, i) => {
    const act = acts[i]
    return act ? [{ act, step }] : []
  })
  return { steps, acts: ORDER_ACTS.filter((a) => steps.some((s) => s.act === a)) }
}

/** What is in the way of an act at its place in an order. */
export type OrderFault = { act: OrderAct; lacks: Condition | 'powerOff' }

/**
 * Goes through the acts as somebody put them: each step of the guide asks for what must be open, off or in place before it, and for power on or off. Any
 * order in which all of it holds is right; null: it is. Else the first that cannot be, and what it lacks.
 */
export function orderFault({ steps }: ChangeOrder, order: readonly OrderAct[]): OrderFault | null {
  const now = new Set<Condition>(['powerOn'])
  for (const act of order)
    for (const { step } of steps.filter((s) => s.act === act)) {
      const lacks = lackOf(step, now)
      if (lacks) return { act, lacks }
      if (step.key === 'isolate') now.delete('powerOn')
      for (const c of step.makes) now.add(c)
      for (const c of step.undoes) now.delete(c)
    }
  return null
}
function lackOf(step: Step, now: ReadonlySet<Condition>): Condition | 'powerOff' | null {
  // What turns the power off or on is no hand in the works.
  const doesTurn = step.key === 'isolate' || step.undoes.includes('powerOn') || step.makes.includes('powerOn')
  if (!doesTurn && step.power === 'off' && now.has('powerOn')) return 'powerOff'
  if (!doesTurn && step.power === 'on' && !now.has('powerOn')) return 'powerOn'
  return step.needs.find((c) => !now.has(c)) ?? null
}

/** Acts in a mixed order that is none of the right ones. */
export function drawOrder(order: ChangeOrder, random: () => number): OrderAct[] {
  for (let i = 0; i < TRIES; i++) {
    const mixed = shuffled(order.acts, random)
    if (orderFault(order, mixed)) return mixed
  }
  return [...order.acts].reverse()
}
const TRIES = 20
