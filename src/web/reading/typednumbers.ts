import { conduitFriction } from '@core/drag/pulls.ts'
import { type Judged } from '@core/reading/judge.ts'
import { slipShare } from '@core/reading/made.ts'
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
  /** What a number is made of, by the field's own name. */
  parts: Partial<Record<string, string>>
  grade: string | null
}
export const NOTHING: Typed = { value: '', left: '', one: '', two: '', parts: {}, grade: null }

/** What a photo told, as if it had been typed, in the reading's own unit. */
export function saidBy(answer: Answer | null, of: NonNullable<Method['photo']>['of'], measure: Measure): Typed {
  if (!answer?.of.ok) return NOTHING
  const told = (value: number) => ({ ...NOTHING, value: String(Math.round(measure.fromSi(value) * 1000) / 1000) })
  if (answer.is === 'span') return told(answer.of.length)
  if (answer.is === 'nozzle')
    return told(of === 'centring' ? answer.of.offCentre : Math.round(answer.of.open * 100) / 100)
  return { ...NOTHING, one: answer.of.maxMm.toFixed(3), two: answer.of.minMm.toFixed(3) }
}

type Dimension = keyof ReturnType<typeof measures>
interface PartField {
  label: string
  /** What it is measured in; null: a plain count. */
  of: Dimension | null
  isOptional?: true
}
const partField = (label: string, of: Dimension | null, more: Partial<PartField> = {}): PartField => ({
  label,
  of,
  ...more,
})
/** Numbers that are made of others, and the fields those are typed in. */
export const MADE_OF = {
  weights: {
    lightN: partField('Light weight', 'force'),
    pullLightN: partField('Pull with it', 'force'),
    heavyN: partField('Heavy weight', 'force'),
    pullHeavyN: partField('Pull with it', 'force'),
    bends: partField('Bends of a quarter turn', null),
  },
  rollAndWire: {
    rollMm: partField('Across the roll, in its groove', 'rule'),
    turns: partField('Turns', null),
    wireMm: partField('Wire that came', 'rule'),
  },
  gauge: {
    bar: partField('The gauge', 'pressure'),
    fullM3: partField('It holds when full, where somebody knows', 'gasVolume', { isOptional: true }),
  },
} as const satisfies Partial<Record<Method['number'], Record<string, PartField>>>
export type MadeOf = keyof typeof MADE_OF
export const isMadeOf = (number: Method['number']): number is MadeOf => number in MADE_OF
export const partFields = (number: MadeOf): [string, PartField][] => Object.entries(MADE_OF[number])
export const partMeasure = (of: PartField['of'], units: Units): Measure => (of === null ? NO_UNIT : measures(units)[of])

const VALUE_OF: Record<MadeOf, (from: Record<string, number>) => number | null> = {
  weights: (from) => {
    const made = conduitFriction(from)
    return made.ok ? made.friction : null
  },
  rollAndWire: slipShare,
  gauge: ({ bar }) => bar ?? null,
}
/** A number made of others, in SI; null until they tell it, and while one of them can't be read. */
function byParts(number: MadeOf, parts: Typed['parts'], units: Units): Numbers | null {
  const from: Record<string, number> = {}
  for (const [name, { of, isOptional }] of partFields(number)) {
    const measure = partMeasure(of, units)
    const text = parts[name] ?? ''
    const value = typed(text, measure)
    if (value !== null) from[name] = value
    else if (!isOptional || (text !== '' && unread(text, measure) !== null)) return null
  }
  const value = VALUE_OF[number](from)
  return value === null ? null : { value, left: null, from }
}
/** What was typed as numbers in SI, whatever the method asks for. */
export const madeOf = (method: Method, said: Typed, of: { units: Units; measure: Measure }) =>
  isMadeOf(method.number) ? byParts(method.number, said.parts, of.units) : numbersOf(method, said, of.measure)

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
