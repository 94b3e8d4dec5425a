import { type DrawingKey } from '@core/drawings/drawing.ts'
import { linerShutSteps } from '@core/guide/close.ts'
import { linerWork } from '@core/guide/linerguide.ts'
import { linerOpens, openSteps } from '@core/guide/open.ts'
import { step, type Step } from '@core/guide/step.ts'
import { openFrom } from './offsteps.ts'
import { type Swap } from './plan.ts'
import { guideOf, isUntold, swapOf, type At } from './step.ts'

/** Guides and rolls. */
export function feederSteps(at: At): Step[] {
  const [inlet, outlet] = [swapOf(at.plan, 'inlet'), swapOf(at.plan, 'outlet')]
  return [
    ...outletGuideSteps(at),
    ...(inlet ? [putStep(at, inlet, { words: 'Inlet guide', look: null, drawing: null })] : []),
    ...rollSteps(at),
    ...(outlet
      ? [
          putStep(at, outlet, {
            words: 'Outlet guide',
            look: 'Rolls chew it: look at its mouth.',
            drawing: 'outletMouth',
          }),
        ]
      : []),
  ]
}

function putStep(
  { minutesOf }: At,
  swap: Swap,
  say: { words: string; look: string | null; drawing: DrawingKey | null },
): Step {
  return step('work', 'off', {
    key: `swap-${swap.kindKey}`,
    hazards: ['isolate'],
    works: [swap.kindKey],
    drawing: say.drawing,
    do: `${say.words}: ${swap.to?.name} (${swap.to?.code}).${swap.isKept && swap.from ? ` Put ${swap.from.code} by: it goes back.` : ''}`,
    look: say.look,
    minutes: minutesOf(swap.kindKey),
    needs: ['wireOut'],
    swap: swap.kindKey,
  })
}

function outletGuideSteps({ plan }: At): Step[] {
  const steps: Step[] = []
  if (plan.outletGuide === 'out')
    steps.push(
      step('work', 'off', {
        key: 'guideOut',
        do: 'Outlet guide out, clip with it. Put both by: they go back for steel.',
        hazards: ['isolate'],
        minutes: 1.5,
        works: ['outlet'],
        needs: ['wireOut'],
        tie: 'guideOut',
      }),
    )
  if (plan.outletGuide === 'back')
    steps.push(
      step('work', 'off', {
        key: 'guideBack',
        do: 'Outlet guide back in, with its clip.',
        look: 'It fits one way only.',
        hazards: ['isolate'],
        minutes: 1.5,
        works: ['outlet'],
        needs: ['wireOut'],
        untie: 'guideOut',
      }),
    )
  return steps
}

function rollSteps(at: At): Step[] {
  const { plan } = at
  const steps: Step[] = []
  const rolls = swapOf(plan, 'rolls')
  const count = plan.from.feeder?.rollCount ?? 4
  if (rolls)
    steps.push(
      putStep(at, rolls, {
        words: count === 2 ? 'Both rolls' : `All ${count} rolls`,
        look: `Hold the gear, twist the retainer, slide off. Every one of them.`,
        drawing: 'rollFace',
      }),
    )
  else if (plan.turns)
    steps.push(
      step('work', 'off', {
        key: 'turnRolls',
        do: `Turn ${plan.turns.rolls.length === count ? (count === 2 ? 'both rolls' : `all ${count} rolls`) : `roll ${plan.turns.rolls.join(' and ')}`} round.`,
        look: null,
        hazards: ['isolate'],
        minutes: 0.8 * plan.turns.rolls.length,
        works: ['rolls'],
        needs: ['wireOut'],
        drawing: 'rollFace',
      }),
    )
  return [...steps, ...readSteps(at), ...(isUntold(plan, 'rolls') ? [untoldRolls(at)] : [])]
}

/** Which rolls are on nobody noted: what they say is read before wire goes in (P002). */
const untoldRolls = ({ plan, sizeWord }: At): Step =>
  step('work', 'off', {
    key: 'read-rolls',
    do: `Read the number on every roll: ${plan.to.wire ? sizeWord(plan.to.wire.diameterMm) : 'the wire’s'} faces you on all of them?`,
    look: 'Another number: turn it round. None has it: another set first. Nobody has noted which rolls these are.',
    hazards: ['isolate'],
    minutes: 1,
    works: ['rolls'],
    needs: ['wireOut'],
    drawing: 'rollFace',
  })
/** Which liner is in nobody noted: with the wire out it is looked at. */
const untoldLiner = ({ plan }: At): Step =>
  step('work', 'off', {
    key: 'untold-liner',
    do: `Is the liner in it for ${plan.to.wire?.name ?? 'this wire'}? Look at its mark, or ask: nobody has noted which it is.`,
    look: 'Too narrow it drags all the way, too wide the wire snakes; a steel coil galls aluminium. Wrong: the liner job now, while it is open.',
    hazards: ['stab'],
    minutes: 0.5,
    works: ['liner'],
    needs: ['wireOut'],
  })

/** One tick a roll: one left behind, or read by nobody, runs another groove than all think. */
function readSteps({ plan, sizeWord }: At): Step[] {
  const readMm = plan.turns?.readMm ?? plan.unread?.readMm
  if (readMm === undefined) return []
  const rolls = [...new Set([...(plan.turns?.rolls ?? []), ...(plan.unread?.rolls ?? [])])].sort((a, b) => a - b)
  return rolls.map((roll) =>
    step('work', 'off', {
      key: `read-roll${roll}`,
      do: `Roll ${roll}: number ${sizeWord(readMm)} faces you.`,
      look: plan.unread?.rolls.includes(roll) ? 'Nobody has read it yet. Another number: turn it round.' : null,
      hazards: ['isolate'],
      minutes: 0.2,
      works: ['rolls'],
      needs: ['wireOut'],
      drawing: 'rollFace',
    }),
  )
}

/** The liner job inside a change is the liner job: what covers it and is not open yet, its own steps, and all of it shut again. */
export function linerSteps(at: At): Step[] {
  if (!swapOf(at.plan, 'liner')) return isUntold(at.plan, 'liner') ? [untoldLiner(at)] : []
  const from = openFrom(at)
  const cleared = new Set(openSteps(from, ['wireOut']).map((s) => s.key))
  const opened = openSteps(from, [...linerOpens(from), 'nutOff']).filter((s) => !cleared.has(s.key))
  const guide = guideOf(at)
  const { work, ...more } = linerWork(guide)
  return [...opened, ...work, ...linerShutSteps(guide, opened, more)].map((s) => ({ ...s, phase: 'work', gate: null }))
}

export function frontSteps({ plan, minutesOf }: At): Step[] {
  return (['jump', 'neck', 'diffuser', 'clampring', 'insulator'] as const).flatMap((kindKey) => {
    const swap = swapOf(plan, kindKey)
    if (!swap) return []
    return [
      step('work', 'off', {
        key: `swap-${kindKey}`,
        do: `${swap.to?.name} (${swap.to?.code}) on instead of ${swap.from?.code}.`,
        hazards: ['hot'],
        minutes: minutesOf(kindKey),
        works: [kindKey],
        needs: ['tipOff'],
        swap: kindKey,
      }),
    ]
  })
}
