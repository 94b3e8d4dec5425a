import { alloyOf, isCored } from '@core/rightparts/facts.ts'
import { mustShutGas } from './feed.ts'
import { type GuideRules } from './rules.ts'
import { feedingSeconds, type FedAt, type GuideAt } from './guideat.ts'
import { type Hazard } from './cautions.ts'
import { step, type Step } from './step.ts'

const SPEED_WORDS = {
  slowThenFast: 'Slowly first, then fast, slowly again through the neck',
  fast: 'Full speed',
  steady: 'At the welding speed',
} as const

/** Power on to feed, hands clear; tension where the shop sets it after this. */
export function feedSteps(at: FedAt & Pick<GuideAt, 'roughWord'>, { isNewLiner, isSlack = false }: Slackened): Step[] {
  const { rules, setup } = at
  const seconds = Math.round(feedingSeconds(at))
  const isTipOn = rules.tipWhileFeeding === 'on'
  return [
    step('on', 'on', {
      key: 'on',
      do: `Tools and hands clear. Power on${rules.power === 'always' ? ', for the feeding alone' : ''}.`,
      hazards: ['live'],
      minutes: 0.3,
      works: ['machine'],
      needs: ['threaded', 'armClosed'],
      makes: ['powerOn'],
      byRule: rules.power === 'twoStates' ? 'D11' : null,
    }),
    step('on', 'on', {
      key: 'feed',
      do: `Cable straight. Feed with ${setup.feeder?.hasJog ? 'the jog button' : 'the trigger'}. ${SPEED_WORDS[rules.speed]}: it should arrive in about ${seconds} s.`,
      look: `Smooth, no jerks${isTipOn ? '; end rounded, the tip is on' : ', tip off'}. ${isSlack ? 'It slips: a quarter turn more, no further.' : 'Slower than that is slip or something in the way: stop and look.'}`,
      hazards: ['trigger', 'stab'],
      minutes: 0.5 + seconds / 60,
      works: ['wire'],
      needs: isTipOn ? ['powerOn'] : ['powerOn', 'tipOff'],
      makes: ['fed'],
      byRule: isTipOn ? 'D10' : 'D13',
    }),
    // What was slackened is set, whatever the shop's rule on setting it.
    ...(isSetByWeld(at) ? [] : tensionIf(at, { isNewLiner, isSlack })),
  ]
}

type Tensioned = FedAt & Pick<GuideAt, 'roughWord'>
interface Slackened {
  isNewLiner: boolean
  isSlack?: boolean
}
/** By arc and ear it is set last, with the front on: an arc wants a tip. */
const isSetByWeld = ({ rules }: FedAt) => rules.tensionBy === 'ear'
const tensionIf = (at: Tensioned, { isNewLiner, isSlack = false }: Slackened): Step[] =>
  isSlack || isTensionSet(at.rules, isNewLiner) ? [tensionStep(at)] : []
/** Tension where it is set by a weld; nothing where it was set before. */
export const tensionByWeld = (at: Tensioned, how: Slackened): Step[] =>
  isSetByWeld(at) ? tensionIf(at, how).map((s) => ({ ...s, phase: 'close' })) : []

/** Wire was loaded in any case: it is set then, or only after a liner, or not at all (D30). */
const isTensionSet = (rules: GuideRules, isNewLiner: boolean) =>
  rules.tension === 'allFour' || rules.tension === 'wire' || (rules.tension === 'liner' && isNewLiner)

export const isGasShut = ({ setup, rules }: FedAt) => mustShutGas(setup.feeder, rules) && setup.gas !== 'none'
export const gasShutStep = step('work', 'off', {
  key: 'gasShut',
  do: 'Shut the cylinder: here the trigger lets gas out.',
  hazards: ['cylinder'],
  minutes: 0.3,
  works: ['cylinder'],
  tie: 'cylinderShut',
  byRule: 'D12',
})

/** Fed with the tip off, hands go to the front next: power off before that, and the trigger out of reach. */
export const offAgainStep = step('close', 'off', {
  key: 'offAgain',
  do: 'Power off again before hands go to tip and nozzle. Gun hung up, nobody at its trigger.',
  hazards: ['isolate', 'trigger'],
  minutes: 0.3,
  works: ['machine'],
  needs: ['fed'],
  undoes: ['powerOn'],
  byRule: 'D11',
})

const OUT_AT_BLOCK_MM = 75
const PINCH = (hand: string) => ({
  do: `Set the tension: work clamp off. While it feeds, a firm pinch of the wire where it comes out, ${hand}: it must stop and the rolls slip.`,
  look: 'A light touch stops it: a little more. Nothing stops it: less, or the next snag is a nest.',
  hazards: ['circuit', 'live'] as const,
})
/** How the tension is set and shown to be right, by the shop's way (D02, P068 to P071). */
const TENSION_BY: Record<
  GuideRules['tensionBy'],
  (at: Tensioned) => { do: string; look: string; hazards: readonly Hazard[] }
> = {
  block: (at) => ({
    do: `Set the tension: about ${at.roughWord(OUT_AT_BLOCK_MM)} of wire out, gun at 45° on a wooden block. Tighten only until the wire keeps coming and curls.`,
    look: 'Stalls: a little more. Pushes the gun back: a little less.',
    hazards: ['circuit'],
  }),
  slack: () => ({
    do: 'Set the tension: start slack, feed onto dry wood, tighten only until slipping stops.',
    look: 'It feeds steadily: no further.',
    hazards: ['circuit'],
  }),
  pinch: () => PINCH('in a dry glove'),
  pinchBare: () => PINCH('by bare fingers'),
  mark: ({ setup }) => ({
    do: `Set the tension: the knob to the mark this feeder has for ${setup.wire?.name ?? 'this wire'}.`,
    look: 'It slips at the mark: something drags. Look for it before you turn the knob.',
    hazards: ['live'],
  }),
  ear: () => ({
    do: 'Set the tension by a short weld: from slack, a little more until arc and sound are even.',
    look: 'More and more for the same arc is a liner, a tip or a roll: look there.',
    hazards: ['live', 'arc', 'clothing', 'trigger'],
  }),
}
/** With power off at every touch, the knob too waits for it. */
const KNOB_OFF = ' Power off for each turn of the knob.'

export const tensionStep = (at: Tensioned): Step => {
  const by = TENSION_BY[at.rules.tensionBy](at)
  const cored = at.setup.wire && isCored(at.setup.wire) ? ' Cored wire crushes: lower than for solid.' : ''
  return step('on', 'on', {
    key: 'tension',
    do: by.do,
    look: `${by.look}${cored} Note the mark.${at.rules.power === 'always' ? KNOB_OFF : ''}`,
    hazards: by.hazards,
    minutes: 2,
    works: ['rolls'],
    needs: ['fed'],
    settles: 'tension',
    byRule: 'D02',
  })
}

/** Last looks before it is left. */
export function endSteps(
  at: GuideAt,
  { isFed, isTipOn, isNewLiner }: { isFed: boolean; isTipOn: boolean; isNewLiner: boolean },
): Step[] {
  const ask = (key: string, what: string, more: Partial<Step> = {}) =>
    step('close', 'either', { key, do: what, minutes: 0.2, ...more })
  const isShut = isFed && isGasShut(at)
  return [
    ...(isFed && isTipOn
      ? [ask('snipEnd', 'Snip the wire to length.', { hazards: ['stab'], works: ['wire'], needs: ['fed'] })]
      : []),
    ...(isFed && isTipOn ? [] : [ask('powerBack', 'Power back on.', { hazards: ['trigger'], works: ['machine'] })]),
    ...(isShut
      ? [
          ask('closeGas', 'Cylinder open again?', {
            untie: 'cylinderShut',
            hazards: ['cylinder'],
            works: ['cylinder'],
            byRule: 'D12',
          }),
        ]
      : []),
    ...(isFed ? tensionByWeld(at, { isNewLiner }) : []),
    ask('closeCentre', 'Does the wire leave dead centre of the nozzle?', { drawing: 'wireCentred', byRule: 'D23' }),
    ...(isFed
      ? [
          ask('closing', 'Free feed without a jerk; then a short weld: wire seen, short cone, even tone?', {
            drawing: 'closing',
            settles: 'freeFeed',
            minutes: 1,
            hazards: ['trigger'],
          }),
        ]
      : []),
  ]
}

export const machineWords = (at: GuideAt): string => {
  const { wire, mode } = at.setup
  return [wire && `wire ${at.sizeWord(wire.diameterMm)}`, mode, wire && alloyOf(wire)].filter(Boolean).join(', ')
}
