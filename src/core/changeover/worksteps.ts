import { type DrawingKey } from '@core/drawings/drawing.ts'
import { isThroughHolder, linerOpens, openSteps, setScrew } from '@core/guide/open.ts'
import { step, type Step } from '@core/guide/step.ts'
import { SHORT_OF_ROLLS_MM } from '@core/liner/rule.ts'
import { tightWords } from '@core/guide/tight.ts'
import { openFrom } from './offsteps.ts'
import { type ChangePlan, type Swap } from './plan.ts'
import { swapOf, type At } from './step.ts'

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
        words: `All ${count} rolls`,
        look: `Hold the gear, twist the retainer, slide off. Every one of them.`,
        drawing: 'rollFace',
      }),
    )
  else if (plan.turns)
    steps.push(
      step('work', 'off', {
        key: 'turnRolls',
        do: `Turn ${plan.turns.rolls.length === count ? `all ${count} rolls` : `roll ${plan.turns.rolls.join(' and ')}`} round.`,
        look: null,
        hazards: ['isolate'],
        minutes: 0.8 * plan.turns.rolls.length,
        works: ['rolls'],
        needs: ['wireOut'],
        drawing: 'rollFace',
      }),
    )
  return [...steps, ...readSteps(at)]
}

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

const LINER_CUT = {
  A: 'Press it home, cut what stands out to the family’s depth: long first, then again.',
  B: 'Push it back, cut it level; the tip presses it home.',
  C: 'Lay the old one beside it and cut to that length.',
} as const

const TIP_SEATS = {
  off: 'Here the tip seats the liner: put it on, then take it off again to feed.',
  on: 'Here the tip seats the liner, and stays on.',
} as const

/** What covers the liner and is not open yet; then the liner, and all of it closed again. */
export function linerSteps(at: At): Step[] {
  const { plan, rules } = at
  const swap = swapOf(plan, 'liner')
  if (!swap) return []
  const fit = plan.to.family?.fit ?? null
  const opened = openSteps(openFrom(at), linerOpens(openFrom(at)))
    .filter((s) => ['clampOff', 'screwOut', 'diffuserOff'].includes(s.key))
    .map((s) => ({ ...s, phase: 'work' as const }))
  const screw = setScrew(openFrom(at))
  const hasRing = opened.some((s) => s.key === 'clampOff')
  return [
    ...opened,
    linerInStep(at, swap),
    step('work', 'off', {
      key: 'diffuserOn',
      do: `${isThroughHolder(openFrom(at)) ? 'Front closed' : `Diffuser on by hand, then ${tightWords('diffuser', fit, rules)}`}${screw === 'none' ? '' : screw === 'has' ? '; then the set screw' : '; then the set screw, if there was one'}${hasRing ? '; then the clamp ring' : ''}. Gun seated flush, then locked.`,
      look: fit?.doesTipSeatLiner ? TIP_SEATS[rules.tipWhileFeeding] : null,
      hazards: ['stab'],
      minutes: 2,
      works: ['diffuser', 'pin'],
      needs: ['tipOff'],
      undoes: ['diffuserOff', 'screwOut', 'clampOff'],
      drawing: 'pinHome',
      byRule: 'D03',
    }),
  ]
}

/** What is left over of a liner as bought: it is sold long, for nobody knows the gun. */
function offCutM(plan: ChangePlan, swap: Swap): number | null {
  const boughtM = swap.to?.fit?.lengthM
  if (!boughtM || plan.from.cableM === null) return null
  const off = boughtM - plan.from.cableM - (plan.from.family?.fit?.neckMm ?? 0) / 1000
  return off > 0.05 ? off : null
}

function linerInStep({ plan, minutesOf, lengthWord, spanWord }: At, swap: Swap): Step {
  const fit = plan.to.family?.fit
  const offM = offCutM(plan, swap)
  return step('work', 'off', {
    key: 'swap-liner',
    do: `Gun off the feeder, cable dead straight on clear floor. Liner nut off, ${swap.from?.code ?? 'the old liner'} out and put by; ${swap.to?.name} (${swap.to?.code}) in from the rear.`,
    look: `Near the neck short pushes, never pliers: a kinked liner is scrap. ${LINER_CUT[fit?.linerRule ?? 'C']}${offM === null ? '' : ` About ${lengthWord(offM)} comes off.`}${plan.outletGuide === 'out' ? ` At the feeder it runs up to the rolls, ${spanWord(SHORT_OF_ROLLS_MM)} short.` : ''}`,
    hazards: ['stab'],
    minutes: minutesOf('liner'),
    works: ['liner'],
    needs: ['wireOut', 'tipOff'],
    drawing: 'linerEnd',
    swap: 'liner',
  })
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
