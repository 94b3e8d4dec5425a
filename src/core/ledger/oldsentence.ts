import { isKindKey, type KindKey } from '@core/path/columns.ts'
import { LINER_CLAUSES, USUAL_TERMS, type LinerClause, type LinerTerms } from '@core/liner/clauses.ts'
import { type School } from '@core/life/chooserule.ts'
import { type Fact } from './event.ts'
import { type ShopChange } from './shopchange.ts'

/**
 * Lines of the ledger from before a change of set-up had fields: their English sentence read one last time, when a database or an export of an older
 * version is taken over. What cannot be read stays as it was said.
 */
const numberOr = (text: string | undefined): number | null =>
  text === undefined || !Number.isFinite(Number(text)) ? null : Number(text)

const SCHOOLS: Record<string, School> = {
  'run to failure': 'runToFailure',
  'fixed use': 'fixed',
  'on condition': 'onCondition',
  'on signs': 'signs',
  'least cost': 'leastCost',
}

/** "house rule: tip, cell: change at 9: look every 7 days", "house rule: tip, booth: change at 6.5 (least cost, from 210 lives)". */
function readHouseRule(said: string): ShopChange | null {
  const [, kindKey, classKey, rest = ''] = /^house rule: ([\w#]+), ([\w*-]+)(.*)$/.exec(said) ?? []
  if (!kindKey || !classKey || !isKindKey(kindKey)) return null
  const find = (pattern: RegExp) => numberOr(pattern.exec(rest)?.[1])
  const [, school, lives] = /\(([a-z ]+)(?:, from (\d+) lives)?\)$/.exec(rest) ?? []
  return {
    of: 'houseRule',
    kindKey,
    classKey,
    changeAt: find(/: change at ([\d.]+)/),
    cleanAt: find(/: clean at ([\d.]+)/),
    lookDays: find(/: look every ([\d.]+) days/),
    school: SCHOOLS[school ?? ''] ?? null,
    lives: numberOr(lives),
  }
}

/** "kink, pull ×1.5, 2 tips". */
function readTerms(words: string): LinerTerms | null {
  if (words === 'no sign') return { ...USUAL_TERMS, on: [] }
  const on: LinerClause[] = []
  let { pullRatio, tips } = USUAL_TERMS
  for (const word of words.split(', ')) {
    const [, ratio] = /^pull ×([\d.]+)$/.exec(word) ?? []
    const [, count] = /^(\d+) tips$/.exec(word) ?? []
    if (ratio) [pullRatio] = [Number(ratio)]
    if (count) [tips] = [Number(count)]
    const clause = ratio ? 'pull' : count ? 'tips' : LINER_CLAUSES.find((c) => c === word)
    if (!clause) return null
    on.push(clause)
  }
  return { on, pullRatio, tips }
}

/** "house rule D06, class cell: signs (kink, 2 tips)", "house rule D02, everywhere: the usual". */
function readSchool(said: string): ShopChange | null {
  const [, code, scope = '', option, terms] =
    /^house rule (D\d\d), (everywhere|\w+ .+?): ([\w ]+?)(?: \((.*)\))?$/.exec(said) ?? []
  if (!code || !option) return null
  const [scopeType = '', ...key] = scope === 'everywhere' ? ['site', '*'] : scope.split(' ')
  return {
    of: 'school',
    code,
    scopeType,
    scopeKey: key.join(' '),
    option: option === 'the usual' ? null : option,
    terms: terms === undefined ? null : readTerms(terms),
  }
}

/** Null: it speaks of what nobody knows here, and stays as it was said. */
type Reader = (found: string[]) => ShopChange | null
const ofKind = (word: string, say: (kindKey: KindKey) => ShopChange) => (isKindKey(word) ? say(word) : null)
const isPlace = (word: string): word is KindKey | 'off' => word === 'off' || isKindKey(word)
const number = (text: string | undefined) => Number(text)
/** Every other sentence that was ever written, and what it meant. */
const SENTENCES: readonly (readonly [pattern: RegExp, read: Reader])[] = [
  [/^shop: (.*), ([\w/+-]+)$/, ([, name = '', zone = '']) => ({ of: 'site', name, zone })],
  [/^area (.*) changed$/, ([, name = '']) => ({ of: 'area', name })],
  [/^place (.*) changed$/, ([, name = '']) => ({ of: 'place', name })],
  [/^rates of (.*)$/, ([, classKey = '']) => ({ of: 'rates', classKey })],
  [/^part kind (.*)$/, ([, word = '']) => ofKind(word, (kindKey) => ({ of: 'kind', kindKey }))],
  [/^parts list: (\d+) lines$/, ([, n]) => ({ of: 'sheet', list: 'parts', lines: number(n) })],
  [/^purchase list: (\d+) lines$/, ([, n]) => ({ of: 'sheet', list: 'purchases', lines: number(n) })],
  [/^fit families: (\d+) lines$/, ([, n]) => ({ of: 'sheet', list: 'families', lines: number(n) })],
  [/^part (.*)$/, ([, name = '']) => ({ of: 'part', name })],
  [/^wire (.*)$/, ([, name = '']) => ({ of: 'wire', name })],
  [/^shifts \((\d+)\)$/, ([, n]) => ({ of: 'shifts', count: number(n) })],
  [/^fit family (.*)$/, ([, name = '']) => ({ of: 'family', name })],
  [/^feeder (.*)$/, ([, name = '']) => ({ of: 'feederType', name })],
  [/^procedure (.*)$/, ([, name = '']) => ({ of: 'procedure', name })],
  [/^gun (.*)$/, ([, name = '']) => ({ of: 'gun', name })],
  [
    /^kept as it is: (.*) at (.*)$/,
    ([, rule = '', at = '']) => (isPlace(at) ? { of: 'finding', rule, at, isKept: true } : null),
  ],
  [
    /^counts again: (.*) at (.*)$/,
    ([, rule = '', at = '']) => (isPlace(at) ? { of: 'finding', rule, at, isKept: false } : null),
  ],
  [/^shelves counted: (\d+) parts?$/, ([, n]) => ({ of: 'counted', parts: number(n) })],
  [/^a delivery put on the shelf$/, () => ({ of: 'received' })],
  [
    /^tin of old (.*)s weighed: (\d+) g(, emptied)?$/,
    ([, word = '', grams, emptied]) =>
      ofKind(word, (kindKey) => ({ of: 'tin', kindKey, grams: number(grams), isEmptied: Boolean(emptied) })),
  ],
  [
    /^(no )?own words in the guide (.*), (.*)$/,
    ([, none, guide = '', step = '']) => ({ of: 'guideWords', guide, step, isOwn: !none }),
  ],
  [
    /^(own|shipped) words for the caution: (.*)$/,
    ([, whose, hazard = '']) => ({ of: 'cautionWords', hazard, isOwn: whose === 'own' }),
  ],
  [
    /^word on (.*) taken back$/,
    ([, word = '']) => ofKind(word, (kindKey) => ({ of: 'word', kindKey, usual: null, early: null })),
  ],
  [
    /^word on (.*): usual ([\d.]+), early ([\d.]+)$/,
    ([, word = '', usual, early]) =>
      ofKind(word, (kindKey) => ({ of: 'word', kindKey, usual: number(usual), early: number(early) })),
  ],
  [
    /^try-out: (.*) \((.*) or (.*), (\d+) places\)$/,
    ([, question = '', nameA = '', nameB = '', n]) => ({ of: 'tryout', question, nameA, nameB, places: number(n) }),
  ],
  [
    /^a try-out ended(: its parts fit, confirmed here)?$/,
    ([, fits]) => ({ of: 'tryoutEnd', isConfirmed: Boolean(fits) }),
  ],
  [/^why a gun stops: causes and checks$/, () => ({ of: 'knowledge', isShipped: false })],
  [/^why a gun stops: back to what ships$/, () => ({ of: 'knowledge', isShipped: true })],
  [/^a person (changed|added)$/, ([, how]) => ({ of: 'person', isNew: how === 'added' })],
  [/^a device dropped$/, () => ({ of: 'device' })],
  [/^a photo of an? (.*) taken back$/, ([, ofType = '']) => ({ of: 'photo', ofType })],
]

/**
 * What a sentence of an older version meant.
 * @example readOldSentence('rates of booth') // { of: 'rates', classKey: 'booth' }
 */
export function readOldSentence(said: string): ShopChange {
  const rule = readHouseRule(said) ?? readSchool(said)
  if (rule) return rule
  for (const [pattern, read] of SENTENCES) {
    const found = pattern.exec(said)
    if (found) return read([...found]) ?? { of: 'other', said }
  }
  return { of: 'other', said }
}

/** A fact as it may stand in a row of an older version: its sentence becomes fields, everything else is as it was. */
export function factOfToday(fact: Fact | { kind: 'shopChanged'; what: string }): Fact {
  return 'what' in fact && fact.kind === 'shopChanged'
    ? { kind: 'shopChanged', change: readOldSentence(fact.what) }
    : fact
}
