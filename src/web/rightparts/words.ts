import { AUDIT } from '@core/walk/audit.ts'
import { type SettingName, type Joint } from '@core/rightparts/facts.ts'
import { RULES, type Datum } from '@core/rightparts/finding.ts'
import { type Askew, type JointFault } from '@core/rightparts/joints.ts'
import { type FindingLine } from '@contract/rightparts.ts'
import { MM_PER_INCH } from '@core/units/convert.ts'
import { cable, twoFigures, wireSize, wireSpeed, type Units } from '@web/format/numbers.ts'
import { capital, listed, partName } from '@web/format/words.ts'

/** A length of a few mm as the shop says it. */
export const shortLength = (mm: number, units: Units) =>
  units === 'us' ? `${twoFigures(mm / MM_PER_INCH)} in` : `${twoFigures(mm)} mm`

/** How far the tip stands out of the nozzle, or back in it. */
export function standing(mm: number, units: Units): string {
  if (Math.abs(mm) < 0.5) return 'level'
  return `${shortLength(Math.abs(mm), units)} ${mm > 0 ? 'out' : 'back'}`
}

export function datumWords(datum: Datum, units: Units, isStanding = false): string {
  switch (datum.is) {
    case 'size':
      return wireSize(datum.mm, units)
    case 'sizes':
      return `${wireSize(datum.fromMm, units).replace(' mm', '')} to ${wireSize(datum.toMm, units)}`
    case 'length':
      return cable(Math.round(datum.m * 100) / 100, units)
    case 'depth':
      return isStanding ? standing(datum.mm, units) : shortLength(datum.mm, units)
    case 'depths':
      return isStanding
        ? `${standing(datum.fromMm, units)} to ${standing(datum.toMm, units)}`
        : `${shortLength(datum.fromMm, units)} to ${shortLength(datum.toMm, units)}`
    case 'groove':
      return `a ${datum.shape} of ${wireSize(datum.sizeMm, units)}`
    case 'text':
      return datum.text
    case 'amps':
      return `${Math.round(datum.amps)} A`
    case 'share':
      return `${Math.max(1, Math.round(datum.fraction * 10))} in 10`
    case 'speed':
      return wireSpeed(datum.mPerMin, units)
  }
}

/** What is wrong, as a sentence. */
export function findingSentence(f: Pick<FindingLine, 'rule' | 'at' | 'found' | 'wanted'>, units: Units): string {
  const isStanding = f.rule === 'tipPosition'
  return capital(
    RULES[f.rule].what
      .replace('{found}', datumWords(f.found, units, isStanding))
      .replace('{wanted}', datumWords(f.wanted, units, isStanding))
      .replace('{at}', findingPlace(f)),
  )
}
export const findingWhy = (f: Pick<FindingLine, 'rule'>) => RULES[f.rule].why

const OFF = 'off the wire'
/** Where on the path. */
export const findingPlace = (f: Pick<FindingLine, 'at'>) => (f.at === 'off' ? OFF : partName(f.at))

const list = (numbers: readonly number[]) => listed(numbers.map(String))

/** What to do about it, short: on Floor and on its key. */
export function remedyWords(f: FindingLine, units: Units): string {
  switch (f.remedy.do) {
    case 'change':
      return f.put ? `Put on ${f.put.code}` : `No ${partName(f.remedy.kindKey)} here fits`
    case 'turn':
      return f.remedy.rolls.length === 1
        ? `Turn roll ${list(f.remedy.rolls)} round`
        : `Turn rolls ${list(f.remedy.rolls)} round`
    case 'set':
      return `Set ${SETTING_WORD[f.remedy.name]}: ${settingWords(f.remedy.name, f.remedy.value, units)}`
    case 'takeOut':
      return `Take the ${partName(f.remedy.kindKey)} out`
    case 'ask':
      return f.suits.length > 0
        ? `${f.suits.map((mm) => wireSize(mm, units)).join(' or ')} wire would suit (a guess)`
        : 'Look at it'
  }
}

/** How many are on the shelf of what should go on. */
export function stockWords(f: FindingLine): string {
  if (!f.put) return f.remedy.do === 'change' ? 'order one, or describe one in Our shop' : ''
  if (f.put.onHand === null) return 'not counted'
  return f.put.onHand === 0 ? 'none on the shelf' : `${f.put.onHand} on the shelf`
}

export const SETTING_WORD: Record<SettingName, string> = {
  roll1: 'roll 1',
  roll2: 'roll 2',
  roll3: 'roll 3',
  roll4: 'roll 4',
  polarity: 'polarity',
  unwind: 'the spool',
  gas: 'gas',
  machineWire: 'the machine’s wire',
  machineMode: 'the machine’s mode',
  machineMaterial: 'the machine’s material',
  tipOut: 'the tip',
  reamerBlade: 'reamer blade',
  reamerClamp: 'reamer clamp',
  antiSpatter: 'anti-spatter',
  gripTip: AUDIT.gripTip.short,
  scrapeNozzle: AUDIT.scrapeNozzle.short,
  snipWire: AUDIT.snipWire.short,
  ownBrush: AUDIT.ownBrush.short,
  hangGun: AUDIT.hangGun.short,
  chainCylinder: AUDIT.chainCylinder.short,
}
export function settingWords(name: SettingName, value: string, units: Units): string {
  if (name.startsWith('roll') || name === 'machineWire') return wireSize(Number(value), units)
  if (name === 'tipOut') return standing(Number(value), units)
  if (name === 'unwind') return `wire leaves ${value}`
  return value
}

export const FAULT_WORD: Record<JointFault, string> = {
  cameLoose: 'came loose',
  turnedAlong: 'turned along',
  seized: 'seized',
  stripped: 'stripped',
  crossThreaded: 'crossed threads',
  askewThread: 'stood crooked: thread crossed',
  askewInsulator: 'stood crooked: insulator loose',
  askewNeck: 'stood crooked: neck bent',
  askewUntold: 'stood crooked, nobody knows why yet',
}
export const ASKEW_WORD: Record<Askew, string> = {
  askewThread: 'its thread is crossed',
  askewInsulator: 'the insulator under it is loose',
  askewNeck: 'the neck is bent',
  askewUntold: 'not found yet',
}
export const JOINT_WORD: Record<Joint, string> = {
  tip: 'tip',
  diffuser: 'diffuser',
  clampring: 'clamp ring',
  insulator: 'insulator',
  nozzle: 'nozzle',
  neck: 'neck',
  linerNut: 'liner nut',
  gunLock: 'gun lock',
}
