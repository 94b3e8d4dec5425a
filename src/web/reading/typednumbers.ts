import { conduitFriction } from '@core/drag/pulls.ts'
import { type Judged } from '@core/reading/judge.ts'
import { type Method } from '@core/reading/specs.ts'
import { measures, typed, unread, type Measure } from '@web/format/measures.ts'
import { type Units } from '@web/format/numbers.ts'
import { capital } from '@web/format/words.ts'
import { type Answer } from '@web/photomeasure/asked.ts'
import { NO_UNIT, VERDICT_WORD } from './readingwords.ts'

/** What stands in the fields of a reading. */
export interface Typed {
  value: string
  left: string
  /** Two diameters, or so many of so many. */
  one: string
  two: string
  /** Two weights, the pull with each, and the bends between. */
  weights: Partial<Record<WeightField, string>>
  grade: string | null
}
export const NOTHING: Typed = { value: '', left: '', one: '', two: '', weights: {}, grade: null }

/** What a photo told, as if it had been typed, in the reading's own unit. */
export function saidBy(answer: Answer | null, of: NonNullable<Method['photo']>['of'], measure: Measure): Typed {
  if (!answer?.of.ok) return NOTHING
  const told = (value: number) => ({ ...NOTHING, value: String(Math.round(measure.fromSi(value) * 1000) / 1000) })
  if (answer.is === 'span') return told(answer.of.length)
  if (answer.is === 'nozzle')
    return told(of === 'centring' ? answer.of.offCentre : Math.round(answer.of.open * 100) / 100)
  return { ...NOTHING, one: answer.of.maxMm.toFixed(3), two: answer.of.minMm.toFixed(3) }
}

export const WEIGHT_FIELDS = {
  lightN: 'Light weight',
  pullLightN: 'Pull with it',
  heavyN: 'Heavy weight',
  pullHeavyN: 'Pull with it',
  bends: 'Bends of a quarter turn',
} as const
export type WeightField = keyof typeof WEIGHT_FIELDS
export const WEIGHT_KEYS = Object.keys(WEIGHT_FIELDS) as WeightField[]

/** Pulls with two weights, in N; null until they tell a friction. */
export function byWeights(weights: Typed['weights'], units: Units): Numbers | null {
  const { force } = measures(units)
  const from = Object.fromEntries(
    WEIGHT_KEYS.flatMap((k) => {
      const value = typed(weights[k] ?? '', k === 'bends' ? NO_UNIT : force)
      return value === null ? [] : [[k, value]]
    }),
  )
  const made = conduitFriction(from)
  return made.ok ? { value: made.friction, left: null, from } : null
}
/** What was typed as numbers in SI, whatever the method asks for. */
export const madeOf = (method: Method, said: Typed, of: { units: Units; measure: Measure }) =>
  method.number === 'weights' ? byWeights(said.weights, of.units) : numbersOf(method, said, of.measure)

export interface Numbers {
  value: number | null
  left: number | null
  from: Record<string, number>
}
/** What was typed, in SI; null until there is enough of it. */
export function numbersOf(method: Method, said: Typed, measure: Measure): Numbers | null {
  const [value, left] = [typed(said.value, measure), typed(said.left, measure)]
  const [one, two] = [said.one, said.two].map((t) => typed(t, NO_UNIT))
  // What can't be read is no "nothing": the field says why, and nothing is kept.
  if (unread(said.value, measure) !== null || unread(said.left, measure) !== null) return null
  if (method.number === 'twoDiameters')
    return one && two && one >= two && two > 0
      ? { value: (one - two) / two, left: null, from: { maxMm: one, minMm: two } }
      : null
  if (method.number === 'ofTotal')
    return one !== null && one !== undefined && two && one <= two && one >= 0
      ? { value: one / two, left: null, from: { open: one, total: two } }
      : null
  const isNumberThere = value !== null || left !== null
  if (method.number === 'needed' && !isNumberThere) return null
  if (method.grades.length > 0 && method.number !== 'needed' && said.grade === null && !isNumberThere) return null
  return { value, left, from: {} }
}

const BECAUSE = {
  grade: '',
  below: ', below its window',
  above: ', above its window',
  inside: '',
  'no window': ', nothing to compare it with yet',
  wide: ', too wide for this wire however round',
} as const
/** "Look, above its window." */
export const verdictSentence = ({ is, because }: Judged) =>
  `${capital(VERDICT_WORD[is])}${is === 'good' && because !== 'no window' ? '' : BECAUSE[because]}.`
