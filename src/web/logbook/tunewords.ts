import { TUNED, type NextTrial, type Saw, type Trial, type Tuned, type TunedValues } from '@core/diagnose/tune.ts'
import { ownUnit, shownQuantity, type QuantityKind } from '@core/units/quantity.ts'
import { type Units } from '@web/format/numbers.ts'
import { capital } from '@web/format/words.ts'

export const TUNED_WORD: Record<Tuned, string> = {
  wireSpeed: 'wire speed',
  volts: 'volts',
  trim: 'trim',
  flow: 'gas flow',
  stickOut: 'stick-out',
}
const TUNED_QUANTITY = {
  wireSpeed: 'speed',
  volts: 'volts',
  trim: 'marks',
  flow: 'flow',
  stickOut: 'rule',
} as const satisfies Record<Tuned, QuantityKind>
/** How a value is typed: wire speed and lengths in the shop's units. */
export const tunedRule = (name: Tuned, units: Units) => ({ of: TUNED_QUANTITY[name], units })
export function valueWords(name: Tuned, value: number | null, units: Units): string {
  const rule = tunedRule(name, units)
  return value === null ? 'not known' : `${shownQuantity(Number(value.toPrecision(4)), rule)} ${ownUnit(rule)}`
}

const SAW_WORD: Record<Saw, string> = { better: 'better, it stays', same: 'the same', worse: 'worse' }
/** "Volts 20 V to 21 V: worse, back." */
export function trialWords({ name, from, to, saw }: Trial, units: Units): string {
  const back =
    saw === 'better' ? '' : from === null ? ', back to what it was' : `, back to ${valueWords(name, from, units)}`
  const was = from === null ? '' : `${valueWords(name, from, units)} `
  return `${capital(TUNED_WORD[name])} ${was}to ${valueWords(name, to, units)}: ${SAW_WORD[saw]}${back}.`
}
export const settingsWords = (values: TunedValues, units: Units): string =>
  TUNED.flatMap((name) => {
    const value = values[name]
    return value === undefined ? [] : [`${TUNED_WORD[name]} ${valueWords(name, value, units)}`]
  }).join(', ')

/** What to change next, and why just that. */
export function nextWords({ name, way, because }: NextTrial): string {
  const word = TUNED_WORD[name]
  const which = way === null ? '' : way === 'up' ? ', up' : ', down'
  if (because === 'together') return `${capital(word)} once more${which}: speed and volts set one arc together.`
  if (because === 'speedFirst')
    return `${capital(word)} first${which}: it sets the current, volts only the arc’s length.`
  return `${capital(word)} next${which}.`
}
