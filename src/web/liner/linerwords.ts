import { SHORT_OF_ROLLS_MM } from '@core/liner/rule.ts'
import { ruleSpan } from '@core/units/length.ts'
import { type AutopsyFind } from '@core/ledger/event.ts'
import { SPARE_MM } from '@core/liner/rule.ts'
import { type LinerAnswer } from '@contract/liner.ts'
import { ruleLength, tapeLength, unitOf } from '@web/format/lengths.ts'
import { minutes, type Units } from '@web/format/numbers.ts'
import { listed } from '@web/format/words.ts'
import { when } from '@web/format/times.ts'

export const FIND_WORD: Record<AutopsyFind, string> = {
  nothing: 'nothing to see',
  worn: 'grooved',
  clogged: 'clogged with copper or dust',
  bunched: 'coils bunched',
  separated: 'coils pulled apart',
  kinked: 'kinked',
  shredded: 'coating shredded',
  cutShort: 'had been cut short',
}
export const PERSON_WORD: Record<LinerAnswer['secondPerson'][number], string> = {
  longCable: 'the cable is long',
  coated: 'a coated liner must go in dead straight',
  stuckBefore: 'one stuck near the neck before',
}

const RULE_SENTENCE: Record<LinerAnswer['by'], (l: LinerAnswer, units: Units) => string> = {
  A: (l, u) => `Cut at the front: ${ruleLength(l.neededMm ?? 0, u)} stand out of the neck when it is right.`,
  B: (l, u) =>
    `Cut at the front: ${ruleLength(l.neededMm ?? 0, u)} stand out of the tip holder when it is right, and the tip presses them home; pushed back that far it is level.`,
  C: (l) =>
    `Cut to the old one’s length.${l.shouldBe ? ` By its build this family should be cut by rule ${l.shouldBe}: say it under Our shop.` : ''}`,
  feeder: (_, u) =>
    `Cut at the feeder, ${ruleSpan(SHORT_OF_ROLLS_MM, unitOf(u))} short of where the rolls meet; the front is not cut.`,
  notTold: () =>
    'How this family’s liner is cut is not told, or a figure of it is missing: say it under Our shop before anything is cut.',
}
export const ruleSentence = (l: LinerAnswer, units: Units) => RULE_SENTENCE[l.by](l, units)

/** "Order at least 4.34 m; LS10 is 5.00 m." */
export function orderSentence(l: LinerAnswer, units: Units): string {
  if (l.orderMm === null) return 'Nobody has said how long the cable is: measure the old liner before you order.'
  const least = `Wants a liner of at least ${tapeLength(l.orderMm, units)}.`
  if (l.putLengthMm === null) return least
  if (l.putLengthMm < l.orderMm)
    return `${least} This one is only ${tapeLength(l.putLengthMm, units)}: too short for this gun.`
  const off = l.putLengthMm - l.orderMm + SPARE_MM
  return `${least} This one is ${tapeLength(l.putLengthMm, units)}: about ${tapeLength(off, units)} comes off.`
}

export function lastSentence(l: LinerAnswer, units: Units): string | null {
  if (!l.last) return null
  const length = l.last.lengthMm === null ? '' : `, ${tapeLength(l.last.lengthMm, units)} long in all`
  return `Last one here, ${when(l.last.atMs, l.nowMs, l.zone)}: ${ruleLength(l.last.leftMm, units)} left standing out${length}.`
}
export function spoiledSentence({ spoiled: { n, of } }: LinerAnswer): string | null {
  if (n === 0) return null
  return `${n} of ${of} new liners were spoiled while they were put in, this year.`
}

/** "The one before showed: coils bunched, 0.90 m from the feeder." */
export function autopsySentence(old: LinerAnswer['autopsies'][number], l: LinerAnswer, units: Units): string {
  const words = old.found.map((f) => FIND_WORD[f]).join(', ')
  const at = old.atMm === null ? '' : `, ${tapeLength(old.atMm, units)} from the feeder`
  const sure = old.isCertain ? '' : ' (it may be from pulling it out)'
  return words ? `The old one of ${when(old.atMs, l.nowMs, l.zone)} showed: ${words}${at}${sure}.` : ''
}

/** "A8 and B6 want a liner too: on the same clear floor about 46 min more." */
export function othersSentence(others: readonly { name: string; minutes: number }[]): string {
  const who = listed(others.map((o) => o.name))
  const more = others.reduce((sum, o) => sum + o.minutes, 0)
  return `${who} ${others.length === 1 ? 'wants' : 'want'} a liner too: on the same clear floor about ${minutes(more)} more.`
}
