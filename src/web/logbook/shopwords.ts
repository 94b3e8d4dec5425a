import { handItem } from '@core/classes/items.ts'
import { PAIRS } from '@core/classes/pairs.ts'
import { CLAUSE_TEXT, type LinerTerms } from '@core/liner/clauses.ts'
import { GUIDES } from '@core/guide/guides.ts'
import { CAUTIONS } from '@core/guide/cautions.ts'
import { questionByCode } from '@core/houserule/schools.ts'
import { type ShopChange, type ShopChangeOf } from '@core/ledger/shopchange.ts'
import { RULES } from '@core/rightparts/finding.ts'
import { type LineNames } from '@contract/fact.ts'
import { amount, UNIT_NAME, type Units } from '@web/format/numbers.ts'
import { capital, lower, partName } from '@web/format/words.ts'
import { SCHOOL_WORD } from '@web/format/words.ts'

type Of<K extends ShopChangeOf> = Extract<ShopChange, { of: K }>
type Names = Pick<LineNames, 'scope' | 'unit'>
type Says = { [K in ShopChangeOf]: (change: Of<K>, names: Names, units: Units) => string }

const use = (value: number, { unit }: Names, units: Units) => (unit ? amount(value, unit, units) : String(value))
const lines = (n: number) => (n === 1 ? '1 line' : `${n} lines`)
/** Classes are the shop's own words, with a capital; families and feeders are names. */
const inClass = (names: Names) => (names.scope === null ? 'everywhere' : `in ${lower(names.scope)}`)

/** "change at 6.5 h, clean at 2 h, look every 7 days (least cost, from 210 lives)". */
export function ruleWords(rule: Of<'houseRule'>, names: Names, units: Units): string {
  const { changeAt, cleanAt, lookDays, school, lives } = rule
  const limits = [
    ...(changeAt === null ? [] : [`change at ${use(changeAt, names, units)}`]),
    ...(cleanAt === null ? [] : [`clean at ${use(cleanAt, names, units)}`]),
    ...(lookDays === null ? [] : [`look every ${lookDays} days`]),
  ]
  const by = school === null ? '' : ` (${SCHOOL_WORD[school]}${lives === null ? '' : `, from ${lives} lives`})`
  return `${limits.length === 0 ? 'no limit' : limits.join(', ')}${by}`
}

/** "a kink, a pull ×1.5". */
const termsWords = ({ on, pullRatio, tips }: LinerTerms): string =>
  on.length === 0
    ? 'no sign'
    : on
        .map((c) => (c === 'pull' ? `pull ×${pullRatio}` : c === 'tips' ? `${tips} tips` : CLAUSE_TEXT[c].says))
        .join(', ')

function schoolWords({ code, scopeType, option, was, terms }: Of<'school'>, names: Names): string {
  const question = questionByCode.get(code)
  const nameOf = (key: string | null) =>
    key === null ? 'the usual' : (question?.schools.find((s) => s.key === key)?.name ?? key)
  const where = scopeType === 'class' ? inClass(names) : names.scope === null ? 'everywhere' : `for ${names.scope}`
  const before = was === undefined || was === option ? '' : `; before: ${nameOf(was)}`
  const how = terms ? ` (${termsWords(terms)})` : ''
  return `${question?.ask ?? code} ${capital(where)}: ${nameOf(option)}${how}${before}`
}

const SAYS: Says = {
  houseRule: (rule, names, units) =>
    `house rule for the ${partName(rule.kindKey)} ${inClass(names)}: ${ruleWords(rule, names, units)}`,
  school: schoolWords,
  word: ({ kindKey, usual, early }, names, units) =>
    usual === null
      ? `word on the ${partName(kindKey)} taken back`
      : `word on the ${partName(kindKey)}: usual ${use(usual, names, units)}, early ${use(early ?? 0, names, units)}`,
  called: ({ word, kindKey }) =>
    kindKey === null ? `“${word}” is no part of a gun` : `“${word}” means the ${partName(kindKey)} here`,
  tryout: ({ question, nameA, nameB, places }) => `try-out: ${question} (${nameA} or ${nameB}, ${places} places)`,
  tryoutEnd: ({ isConfirmed }) => (isConfirmed ? 'a try-out ended: its parts fit, confirmed here' : 'a try-out ended'),
  site: ({ name, zone }) => `shop: ${name}, ${zone}`,
  area: ({ name }) => `area ${name} changed`,
  place: ({ name }) => `place ${name} changed`,
  part: ({ name }) => `part ${name}`,
  wire: ({ name }) => `wire ${name}`,
  family: ({ name }) => `fit family ${name}`,
  feederType: ({ name }) => `feeder ${name}`,
  procedure: ({ name }) => `procedure ${name}`,
  gun: ({ name }) => `gun ${name}`,
  rates: ({ classKey }, names) => `rates of ${lower(names.scope ?? classKey)}`,
  kind: ({ kindKey, unit }) =>
    unit === undefined
      ? `counting and keeping of the ${partName(kindKey)}`
      : `the ${partName(kindKey)} is counted in ${UNIT_NAME[unit]}`,
  shifts: ({ count }) => `shifts (${count})`,
  finding: ({ rule, at, isKept }) => {
    const by = rule in RULES ? `, ${RULES[rule as keyof typeof RULES].source}` : ''
    return `what was found ${at === 'off' ? 'off the wire' : `at the ${partName(at)}`}${by}: ${isKept ? 'kept as it is' : 'counts again'}`
  },
  counted: ({ parts }) => `shelves counted: ${parts} ${parts === 1 ? 'part' : 'parts'}`,
  received: () => 'a delivery put on the shelf',
  carried: ({ parts }) => `carried from one place to another: ${parts} ${parts === 1 ? 'part' : 'parts'}`,
  store: ({ name, isClosed }) => `parts ${isClosed ? 'no longer lie' : 'lie'} at ${name}`,
  necksGoRound: ({ places }) => `necks go round at ${places} ${places === 1 ? 'cell' : 'cells'}`,
  neck: ({ name }) => `neck ${name}`,
  supplier: ({ name }) => `supplier ${name}`,
  offer: ({ part, supplier }) => `what ${supplier} sells ${part} for`,
  shelf: ({ part }) => `where ${part} lies`,
  ordered: ({ supplier, lines: n }) => `ordered from ${supplier}: ${lines(n)}`,
  orderClosed: ({ supplier }) => `the rest of an order from ${supplier} does not come`,
  kit: ({ name, isClosed }) => (isClosed ? `kit ${name}: used or given back` : `kit ${name} packed`),
  jobs: ({ count }) => `wire for ${count === 1 ? 'a job' : `${count} jobs`} said`,
  job: ({ name, isDone }) => (isDone ? `job ${name} welded` : `spools for jobs: ${name}`),
  tin: ({ kindKey, grams, isEmptied }) =>
    `tin of old ${partName(kindKey)}s weighed: ${grams} g${isEmptied ? ', emptied' : ''}`,
  guideWords: ({ guide, isOwn }) => {
    const name = guide in GUIDES ? GUIDES[guide as keyof typeof GUIDES].name.toLowerCase() : guide
    return `${isOwn ? 'own words' : 'no own words'} at a step of the guide for ${name}`
  },
  cautionWords: ({ hazard, isOwn }) => {
    const name = hazard in CAUTIONS ? CAUTIONS[hazard as keyof typeof CAUTIONS].name : hazard
    return `${isOwn ? 'own' : 'shipped'} words for the caution: ${name}`
  },
  knowledge: ({ isShipped }) => `why a gun stops: ${isShipped ? 'back to what ships' : 'causes and checks'}`,
  person: ({ isNew }) => (isNew ? 'a person added' : 'a person changed'),
  device: () => 'a device dropped',
  photo: ({ ofType }) => `a photo of a ${ofType === 'event' ? 'line' : ofType === 'pair' ? 'card' : ofType} taken back`,
  sheet: ({ list, lines: n }) =>
    `${{ parts: 'parts list', purchases: 'purchase list', families: 'fit families' }[list]}: ${lines(n)}`,
  group: ({ name, isActive }) => (isActive ? `group ${name}` : `group ${name} has left`),
  calendar: ({ name, is, count }) =>
    is === 'takenIn' ? `calendar taken in: ${count} ${count === 1 ? 'entry' : 'entries'}` : `calendar: ${name} ${is}`,
  drillSet: ({ name, group, isEnded }) =>
    isEnded ? `drills “${name}” taken back` : `drills “${name}” set for ${group ?? 'all'}`,
  taught: ({ group, item }) => `two-minute lesson for ${group}: ${handItem(item).name.toLowerCase()}`,
  pairWords: ({ pair, isWrongHere }) =>
    isWrongHere ? `card “${PAIRS[pair].name}”: wrong here` : `card “${PAIRS[pair].name}”: own words`,
  other: ({ said }) => said,
}

function saysOf<K extends ShopChangeOf>(change: Of<K>, names: Names, units: Units): string {
  const says: (change: Of<K>, names: Names, units: Units) => string = SAYS[change.of]
  return says(change, names, units)
}

/** What was changed about the shop, as a clause. */
export const shopChangeWords = (change: ShopChange, names: Names, units: Units): string => saysOf(change, names, units)
