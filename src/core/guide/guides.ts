import { type KindKey } from '@core/path/columns.ts'
import { agentAt, antiSpatterSteps } from './antispatter.ts'
import { fitOf, hasOn, openAt, type GuideAt } from './guideat.ts'
import { atCell } from './cellsteps.ts'
import { closeSteps, plugStep } from './close.ts'
import { cutterOf, linerWork } from './linerguide.ts'
import { nestSteps } from './nestguide.ts'
import { isolateStep, POWER_BACK, linerOpens, openSteps, type Openable } from './open.ts'
import { step, type Step } from './step.ts'
import { WORK } from './work.ts'
import { canFollowTail, tailGuide, wireGuide } from './wireguide.ts'
import { type GuideKey } from './keys.ts'
import { cylinderSteps, machineSteps } from './supplyguides.ts'

interface GuideText {
  name: string
  /** Kind of part it is about, where it is about one; its minutes are learnt under it. */
  kindKey: KindKey | null
  /** What it wants at hand besides the part. */
  tools: (at: GuideAt) => string[]
}
const SNIP = 'side cutters'
export const GUIDES: Record<GuideKey, GuideText> = {
  tip: { name: 'Contact tip', kindKey: 'tip', tools: () => [SNIP, 'tip spanner or pliers'] },
  nozzle: { name: 'Nozzle', kindKey: 'nozzle', tools: () => ['nozzle pliers or a scraper', SNIP] },
  insulator: { name: 'Insulator', kindKey: 'insulator', tools: () => [SNIP] },
  diffuser: {
    name: 'Diffuser',
    kindKey: 'diffuser',
    tools: (at) => [
      SNIP,
      'diffuser spanner',
      ...(fitOf(at)?.linerHeldBy === 'set screw' ? ['hex key for the set screw'] : []),
      'brush',
    ],
  },
  liner: { name: 'Liner', kindKey: 'liner', tools: (at) => linerTools(at) },
  rolls: { name: 'Drive rolls', kindKey: 'rolls', tools: () => ['brush'] },
  guides: { name: 'Inlet and outlet guide', kindKey: 'outlet', tools: () => [SNIP, 'tip spanner or pliers'] },
  orings: { name: 'O-rings of the pin', kindKey: 'orings', tools: () => [SNIP, 'a blunt pick'] },
  gun: { name: 'The whole gun', kindKey: null, tools: () => [SNIP, 'tip spanner or pliers'] },
  wire: { name: 'Loading wire', kindKey: 'hub', tools: () => [SNIP, 'tip spanner or pliers'] },
  tail: { name: 'Same wire, behind its tail', kindKey: 'hub', tools: () => [SNIP, 'file'] },
  nest: {
    name: 'Clearing a nest',
    kindKey: null,
    tools: () => [SNIP, 'flat pliers', 'tip spanner or pliers', 'brush'],
  },
  plug: { name: 'Control plug', kindKey: null, tools: () => [] },
  cylinder: {
    name: 'Cylinder, flowmeter, hose',
    kindKey: 'gas',
    tools: () => ['cylinder spanner', 'leak spray or soapy water'],
  },
  machine: { name: 'Starting the machine', kindKey: null, tools: () => [] },
  antispatter: { name: 'Anti-spatter', kindKey: 'nozzle', tools: (at) => AGENT_TOOLS[agentAt(at)] },
}
const AGENT_TOOLS = {
  none: [],
  dip: ['the dip, its lid beside it'],
  gel: ['the gel, a clean rag'],
  spray: ['the sealed sprayer'],
}
const linerTools = (at: GuideAt) => [
  ...new Set([SNIP, cutterOf(at)]),
  'rule and tape',
  'file or pick for the burr',
  'spanner for the liner nut',
  ...(fitOf(at)?.linerHeldBy === 'set screw' ? ['hex key for the set screw'] : []),
  'tray for what goes back on',
]

/** Whether a gun has what the guide is about. */
export function hasGuide(at: GuideAt, key: GuideKey): boolean {
  const { kindKey } = GUIDES[key]
  if (key === 'guides') return hasOn(at, 'inlet') || hasOn(at, 'outlet')
  if (key === 'antispatter') return hasOn(at, 'nozzle') && agentAt(at) !== 'none'
  if (key === 'tail') return canFollowTail(at)
  if (key === 'wire' || kindKey === null || kindKey === 'gas') return true
  return hasOn(at, kindKey)
}

/** What has to be open for the work; the others open by rules of their own. */
const OPENS: Record<
  Exclude<GuideKey, 'liner' | 'wire' | 'tail' | 'nest' | 'plug' | 'cylinder' | 'machine' | 'antispatter'>,
  readonly Openable[]
> = {
  tip: ['tipOff'],
  nozzle: ['nozzleOff'],
  insulator: ['insulatorOff'],
  diffuser: ['diffuserOff'],
  rolls: ['armOpen'],
  guides: ['wireOut'],
  orings: ['gunOut'],
  gun: ['gunOut'],
}

/**
 * One guide for one gun: what covers the part is opened outermost first, the work is done, and all of it is closed again, by the gun's
 * own part tree, its family's exceptions and the shop's schools.
 */
export function guideSteps(at: GuideAt, key: GuideKey): Step[] {
  const { cell } = at.setup
  const steps = handSteps(at, key)
  return cell ? steps.map((s) => atCell(s, cell)) : steps
}

function handSteps(at: GuideAt, key: GuideKey): Step[] {
  if (key === 'machine') return machineSteps(at)
  if (key === 'antispatter') return antiSpatterSteps(at)
  if (key === 'cylinder') return cylinderSteps(at)
  if (key === 'nest') return nestSteps(at)
  if (key === 'plug') return plugGuide(at)
  if (key === 'wire') return wireGuide(at)
  if (key === 'tail') return tailGuide(at)
  const opens = key === 'liner' ? [...linerOpens(openAt(at)), 'nutOff' as const] : OPENS[key]
  const opened = openSteps(openAt(at), opens)
  const newKind = key === 'guides' || key === 'rolls' || key === 'orings' ? null : key
  const { work, ...more } = key === 'liner' ? linerWork(at) : { work: WORK[key]?.(at) ?? [] }
  return [isolateStep(at), ...opened, ...work, ...closeSteps(at, [...opened, ...work], { newKind, ...more })]
}

function plugGuide(at: GuideAt): Step[] {
  const opened = openSteps(openAt(at), ['plugOff'])
  return [
    isolateStep(at),
    ...opened,
    plugStep(at),
    POWER_BACK,
    step('close', 'either', {
      key: 'plugTry',
      do: 'Trigger: does the feeder answer, and stop when it is let go?',
      minutes: 0.2,
      hazards: ['trigger'],
    }),
  ]
}
