import { MIN_MS } from '@core/units/time.ts'
import { READING } from '@core/reading/specs.ts'
import { type FloorAnswer, type FloorGun, type FloorWant } from '@contract/floor.ts'
import { amount, minutes, twoFigures, type Units } from '@web/format/numbers.ts'
import { about, when } from '@web/format/times.ts'
import { windowWords } from '@web/format/window.ts'
import { findingPlace, findingSentence, remedyWords } from '@web/rightparts/words.ts'
import { loggingSentence } from '@web/parts/supplywords.ts'
import { foundTitle, foundWhy } from '@web/reading/readingwords.ts'
import { signWords } from '@web/liner/signwords.ts'
import { actPhrase, capital, countWord, inN, guns, listed, partName } from '@web/format/words.ts'

/** The one sentence that is read first: how many guns, by when, how long, and what the rest do. */
export function floorSentence(floor: FloorAnswer): string {
  if (floor.guns.length === 0) return 'No guns yet.'
  const opened = floor.guns.filter((g) => g.rank !== null)
  const by = windowWords(floor.cutoff, floor.nowMs, floor.zone)
  const rest = restSentence(floor)
  if (opened.length === 0) {
    if (floor.notSeenGuns === floor.guns.length)
      return `Nobody has looked at ${floor.guns.length} ${guns(floor.guns.length)}.`
    if (floor.harming.length > 0) return `Nothing stops before ${by}, but ${harmingWords(floor.harming)}.`
    return `Nothing wants hands before ${by}${sureness(floor.quietChance)}.${rest}`
  }
  const total = opened.reduce((sum, g) => sum + g.minutes, 0)
  const time = total > 0 ? ` ${minutes(total).replace(' min', ' minutes')}.` : ''
  return `${countWord(opened.length)} ${guns(opened.length)} ${opened.length === 1 ? 'wants' : 'want'} hands before ${by}.${time}${rest}`
}

/** By name while they are few. */
const gunsWords = (names: readonly string[]) => (names.length > 3 ? `${names.length} guns` : listed(names))
/** "T7 and Cell 2 are built or set so that it harms": they open no row, and are not as they should be. */
const harmingWords = (names: readonly string[]): string =>
  `${gunsWords(names)} ${names.length === 1 ? 'is' : 'are'} built or set so that it harms`

/** The value of silence is how sure it is; nothing said means nothing could be told. */
function sureness(chance: number): string {
  return chance > 0 ? ` (${inN(chance)} that this is wrong)` : ''
}

function restSentence(floor: FloorAnswer): string {
  if (floor.laterGuns === 0) return ' The rest can wait till tomorrow.'
  return ` ${countWord(floor.laterGuns)} more by this time tomorrow.`
}

/** "Drive tension creeps on A4 and B3: look at liner, tip and rolls." One sentence a reading. */
function creepSentences(creeping: FloorAnswer['creeping']): string[] {
  return [...new Set(creeping.map((c) => c.what))].map((what) => {
    const names = creeping.filter((c) => c.what === what).map((c) => c.name)
    const shown = gunsWords(names)
    return `${capital(READING[what].name)} creeps on ${shown}: ${READING[what].asksFor}.`
  })
}

/** What the numbers rest on: not seen, estimated. Nothing when there is nothing to own up to. */
export function honesty(floor: FloorAnswer): string {
  const said: string[] = []
  if (floor.notSeenGuns > 0 && floor.notSeenGuns < floor.guns.length)
    said.push(
      `${floor.notSeenGuns} of ${floor.guns.length} guns have parts nobody has seen lately or set a limit for: dotted below.`,
    )
  const isAnyOpen = floor.guns.some((g) => g.rank !== null)
  if (isAnyOpen && floor.harming.length > 0) said.push(`${capital(harmingWords(floor.harming))}.`)
  if (floor.wrongGuns > 0)
    said.push(
      `${floor.wrongGuns} of ${floor.checkedGuns} guns are built wrong.`.replace(
        /^1 of (\d+) guns are/,
        '1 of $1 guns is',
      ),
    )
  said.push(...creepSentences(floor.creeping))
  if (floor.followUps > 0)
    said.push(
      `${floor.followUps} ${floor.followUps === 1 ? 'follow-up is' : 'follow-ups are'} open from what was done.`,
    )
  if (floor.tags > 0)
    said.push(`${floor.tags} temporary ${floor.tags === 1 ? 'setting is' : 'settings are'} still standing.`)
  if (floor.estimatedGuns > 0)
    said.push(`Hollow lines rest on estimated hours (${floor.estimatedGuns} ${guns(floor.estimatedGuns)}).`)
  if (floor.logging) {
    const { areaId } = floor.logging
    const area = areaId && floor.areas.length > 1 ? floor.areas.find((a) => a.id === areaId)?.name : null
    said.push(loggingSentence(floor.logging, area ?? null))
  }
  if (isAnyOpen && floor.quietChance > 0)
    said.push(`${capital(inN(floor.quietChance))} that one more gets there before then.`)
  const parked = floor.guns.filter((g) => g.isParked).length
  if (parked > 0) said.push(`${parked} parked.`)
  return said.join(' ')
}

/** The act of an opened row, with its minutes. */
export function rowAct(gun: FloorGun, at: { nowMs: number; zone: string; units: Units }): string {
  const { nowMs, zone, units } = at
  if (gun.downSinceMs !== null) return `Down since ${when(gun.downSinceMs, nowMs, zone)}`
  const [worst, ...others] = gun.wrong
  if (worst) {
    const rest = others.length + gun.wants.length
    return `${remedyWords(worst, units)}${rest > 0 ? ` and ${rest} more` : ''}, ${minutes(gun.minutes)}`
  }
  const [found, ...alike] = gun.found
  if (found) {
    const rest = alike.length + gun.wants.length
    return `${foundTitle(found)}${rest > 0 ? ` and ${rest} more` : ''}, ${minutes(gun.minutes)}`
  }
  const [first, ...more] = gun.wants
  if (!first) return ''
  return `${actPhrase(first.act, first.position)}${more.length > 0 ? ` and ${more.length} more` : ''}, ${minutes(gun.minutes)}`
}

/** Where its class begins before the others’ break; of one that stands nothing is left to wait for. */
export const soonerWords = (
  { by, downSinceMs }: FloorGun,
  { nowMs, zone }: Pick<FloorAnswer, 'nowMs' | 'zone'>,
): string => (by && downSinceMs === null ? `before ${windowWords(by, nowMs, zone)}. ` : '')

/** Why: the use against the limit, and whose number it is. */
export function rowWhy(gun: FloorGun, units: Units): string {
  if (gun.downSinceMs !== null)
    return gun.downPosition ? `at the ${partName(gun.downPosition)}` : (gun.downSays ?? 'nobody has said where')
  const wrong = gun.wrong.map((f) => `${findingPlace(f)}: ${findingSentence(f, units)}`)
  const found = gun.found.length > 0 ? foundWhy(gun.found) : ''
  return [...wrong, found, gun.wants.map((w) => wantWhy(w, units)).join('; ')].filter(Boolean).join(' ')
}
export function wantWhy(want: FloorWant, units: Units): string {
  if (want.signs.length > 0)
    return `${partName(want.position)}: ${want.signs.map(signWords).slice(0, 2).join('; ')} (house rule)`
  const did = want.act === 'clean' ? 'since cleaned' : 'on it'
  const rule = want.foundN === null ? 'house rule' : `as found ${want.foundN} times here`
  const km = want.limitKm === null ? '' : ` (${twoFigures(want.limitKm)} km of this wire)`
  return `${partName(want.position)} ${amount(want.used, want.unit, units)} ${did}, ${rule} ${amount(want.limit, want.unit, units)}${km}${want.isEstimated ? ', est.' : ''}`
}

/** What leaving it does, as far as is known: how long past, or when it gets there. */
export function leaving(gun: FloorGun, nowMs: number, zone: string): string {
  if (gun.downSinceMs !== null) return downWords(gun, nowMs)
  const [worst] = gun.wrong
  if (worst) return worst.remedy.do === 'change' ? 'wrong part' : 'set wrong'
  const [found] = gun.found
  if (found) return `found ${when(found.sinceMs, nowMs, zone)}`
  const [first] = gun.wants
  if (!first) return ''
  return pastWords(first, nowMs, zone)
}
/** How long it stands: of the shift's own time, where nights and Sundays lie between, and said so. */
function downWords(gun: FloorGun, nowMs: number): string {
  const stood = gun.downMinutes ?? 0
  const isLonger = nowMs - (gun.downSinceMs ?? nowMs) > (stood * 1.1 + 2) * MIN_MS
  return isLonger ? `${minutes(stood)} of shift time` : `${minutes(stood)} so far`
}
/** What is likeliest to go until tomorrow, of what is due; null where something else is the matter first, or nothing is known. */
export function worstLeft(gun: FloorGun): FloorWant | null {
  if (gun.downSinceMs !== null || gun.wrong.length > 0) return null
  return gun.wants.reduce<FloorWant | null>(
    (most, w) => (w.leave && (!most?.leave || w.leave.chance > most.leave.chance) ? w : most),
    null,
  )
}
/** "Tip: 8 in 10 it goes by tomorrow." Leaving it till then, in a natural count. */
export const leftWords = (want: FloorWant): string =>
  want.leave ? `${inN(want.leave.chance)} the ${partName(want.position)} goes by tomorrow` : ''
function pastWords(first: FloorWant, nowMs: number, zone: string): string {
  if (first.signs.length > 0)
    return first.reachedMs === null ? 'now' : `sign since ${when(first.reachedMs, nowMs, zone)}`
  if (first.shiftsOver >= 1)
    return `${Math.round(first.shiftsOver)} ${Math.round(first.shiftsOver) === 1 ? 'shift' : 'shifts'} past`
  if (first.reachedMs !== null && first.reachedMs <= nowMs) return `past since ${when(first.reachedMs, nowMs, zone)}`
  return first.reachedMs === null ? 'now' : `gets there ${reach(first, nowMs, zone)}`
}

/** "about 13:00 (11:30–tomorrow 07:00)": the instant and the span that holds 8 in 10. */
export function reach(want: FloorWant, nowMs: number, zone: string): string {
  if (want.reachedMs === null) return 'at no time at this rate'
  const span =
    want.earlyMs !== null && want.lateMs !== null
      ? ` (${about(Math.max(want.earlyMs, nowMs), nowMs, zone)}–${about(want.lateMs, nowMs, zone)})`
      : ''
  return `about ${about(want.reachedMs, nowMs, zone)}${span}`
}

/** Beside an area: the next gun of it to want hands. */
export function nextOf(list: readonly FloorGun[], nowMs: number, zone: string): string {
  const ahead = list.filter((g) => g.rank === null && !g.isParked && g.next?.reachedMs)
  const [soonest] = ahead.sort((a, b) => (a.next?.reachedMs ?? 0) - (b.next?.reachedMs ?? 0))
  if (!soonest?.next?.reachedMs) return ''
  return `next: ${soonest.name} ${partName(soonest.next.position)}, about ${about(soonest.next.reachedMs, nowMs, zone)}`
}
