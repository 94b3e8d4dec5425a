import { isShaved, pathOf } from './path.ts'
import { REMEDIES, REMEDY, type RemedyKey } from './remedy.ts'
import { withValues, type DragSetup } from './setup.ts'
import {
  feedVerdict,
  isStalled,
  NEST_FACTOR,
  SLIP_FACTOR,
  tensionWindow,
  windowRatio,
  type TensionWindow,
  type Verdict,
} from './window.ts'

export const WIDTHS = ['comfortable', 'narrow', 'nearly closed', 'closed'] as const
export type Width = (typeof WIDTHS)[number]
/** Traction at the high edge over that at the low. */
const COMFORTABLE = 2
const NARROW = 1.3

export function widthOf(ratio: number | null): Width {
  if (ratio === null || ratio <= 1) return 'closed'
  if (ratio < NARROW) return 'nearly closed'
  return ratio < COMFORTABLE ? 'narrow' : 'comfortable'
}

/** What would come of one thing put right. */
export interface Reopening {
  steps: RemedyKey[]
  minutes: number
  ratio: number
}
/** One thing that takes of the window, and how much wider it would be without it: ratio after over ratio before. */
export interface Culprit {
  remedy: RemedyKey
  times: number
}
/** What happens at the knob as it stands. */
export interface AtKnob {
  mark: number
  tractionN: number
  /** In feeding: it slips, feeds but without the margin for jerks and posture, or feeds. */
  feeding: 'slips' | 'no margin' | 'feeds'
  /** Wire held at the tip: rolls slip, it is near the nest, or it nests; flattened where a pair presses above the crush limit. */
  stopped: 'slips' | 'near a nest' | 'nests'
  isFlattened: boolean
}
export interface Explained {
  window: TensionWindow
  verdict: Verdict
  ratio: number | null
  width: Width
  /** What takes most of the window, most first; none where nothing is out of the ordinary. */
  culprits: Culprit[]
  /** Cheapest first; empty where it is open, or where nothing on the list opens it. */
  reopens: Reopening[]
  isShaved: boolean
  /** The motor stalls before the wire moves. */
  isStalled: boolean
}

const ratioOf = (setup: DragSetup) => windowRatio(tensionWindow(pathOf(setup))) ?? 0
const isOpenAt = (setup: DragSetup) => tensionWindow(pathOf(setup)).isOpen

/**
 * The window, what takes of it, and the cheapest that opens it again: every remedy alone in order of minutes, and where none does, one
 * after the other by what each gains per minute. A remedy counts as opening where the low edge comes under the high one.
 */
export function explain(setup: DragSetup): Explained {
  const path = pathOf(setup)
  const window = tensionWindow(path)
  const ratio = windowRatio(window)
  return {
    window,
    verdict: feedVerdict(path, window),
    ratio,
    width: window.isOpen && !isStalled(path, window) ? widthOf(ratio) : 'closed',
    culprits: culpritsOf(setup, ratio ?? 0),
    reopens: window.isOpen ? [] : reopeningsOf(setup),
    isShaved: isShaved(setup),
    isStalled: isStalled(path, window),
  }
}

/** Below so many times wider it is not worth a word. */
const WORTH_TELLING = 1.1
function culpritsOf(setup: DragSetup, before: number): Culprit[] {
  return REMEDIES.flatMap((remedy) => {
    const after = REMEDY[remedy].apply(setup)
    if (!after) return []
    const times = before > 0 ? ratioOf(after) / before : Infinity
    return times >= WORTH_TELLING ? [{ remedy, times }] : []
  }).sort((a, b) => b.times - a.times)
}

function reopeningsOf(setup: DragSetup): Reopening[] {
  const alone = REMEDIES.flatMap((key) => {
    const after = REMEDY[key].apply(setup)
    return after && isOpenAt(after) ? [{ steps: [key], minutes: REMEDY[key].minutes, ratio: ratioOf(after) }] : []
  }).sort((a, b) => a.minutes - b.minutes)
  return alone.length > 0 ? alone : together(setup)
}

/** None opens it alone: one after the other, the most gained per minute first, until it is open. */
function together(setup: DragSetup): Reopening[] {
  let at = setup
  const steps: RemedyKey[] = []
  for (;;) {
    const before = ratioOf(at)
    const next = REMEDIES.filter((key) => !steps.includes(key))
      .flatMap((key) => {
        const after = REMEDY[key].apply(at)
        if (!after) return []
        const gain = Math.log(Math.max(ratioOf(after), 1e-9) / Math.max(before, 1e-9))
        return gain > 1e-6 ? [{ key, after, perMinute: gain / REMEDY[key].minutes }] : []
      })
      .sort((a, b) => b.perMinute - a.perMinute)[0]
    if (!next) return []
    at = next.after
    steps.push(next.key)
    if (isOpenAt(at)) return [{ steps, minutes: steps.reduce((n, k) => n + REMEDY[k].minutes, 0), ratio: ratioOf(at) }]
  }
}

/** Traction at the knob against what feeding needs and what the gap bears, N; N of the pair against the crush limit. */
export function atKnob(setup: DragSetup, mark: number): AtKnob {
  const window = tensionWindow(pathOf(setup))
  const tractionN = Math.max(0, window.traction.atZeroN + window.traction.perMarkN * mark)
  const needed = window.neededN ?? Infinity
  const nest = window.nest.nestForceN
  return {
    mark,
    tractionN,
    feeding: tractionN < needed ? 'slips' : tractionN < SLIP_FACTOR * needed ? 'no margin' : 'feeds',
    stopped: tractionN > nest ? 'nests' : tractionN > nest / NEST_FACTOR ? 'near a nest' : 'slips',
    isFlattened: window.crushMark !== null && mark > window.crushMark,
  }
}

/** The knob in the middle of the window by traction, or half way up the scale where there is none. */
export function middleMark(setup: DragSetup): number {
  const { lowMark, highMark, isOpen } = tensionWindow(pathOf(setup))
  const [from, to] = setup.shape.feeder.scale
  return isOpen && lowMark !== null ? (lowMark + highMark) / 2 : (from + to) / 2
}

/** So many lazy coils, all else as it is, and the window shuts; null where six do not. */
export function coilsToShut(setup: DragSetup): number | null {
  const shut = [0, 1, 2, 3, 4, 5, 6].find((coils) => !isOpenAt(withValues(setup, { coils })))
  return shut ?? null
}
