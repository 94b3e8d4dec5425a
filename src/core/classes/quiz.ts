import { columnOf } from '@core/path/kinds.ts'
import { type Column, type KindKey } from '@core/path/columns.ts'
import { shuffled } from '@core/random/random.ts'
import { PAIRS } from './pairs.ts'
import { PAIR_KEYS } from './items.ts'

/** Questions made of the shop’s own guns (P180): name it, which one fits, what the trigger starts, what first, right or wrong. */
export const QUIZ_KINDS = ['name', 'fits', 'trigger', 'first', 'pair'] as const
export type QuizKind = (typeof QUIZ_KINDS)[number]
export interface Question {
  kind: QuizKind
  /** What it is about: a kind of part, a symptom, a pair. */
  about: string
  says: string
  /** Where on the path it points. */
  at: Column | 'off' | null
  /** Which panel of which pair is shown. */
  shown: { pair: (typeof PAIR_KEYS)[number]; panel: 0 | 1 } | null
  options: string[]
  /** Which of them it is. */
  answer: number
  /** Said once it was answered. */
  why: string
}

export interface QuizShop {
  /** Parts of the own gun, as this shop calls them, in path order. */
  parts: readonly { kindKey: KindKey; name: string }[]
  gunName: string
  wireName: string | null
  /** Of some kinds: what fits this gun and wire, what does not and why not. */
  fits: readonly { kindKey: KindKey; name: string; right: string; wrong: readonly { says: string; why: string }[] }[]
  /** What is looked at first at a symptom here. */
  firsts: readonly { symptom: string; says: string; look: string; how: string }[]
}

/** What the trigger starts, whichever gun it is; the pressure arm open is the usual trap. */
const TRIGGER: readonly { about: string; says: string; right: string; wrong: readonly string[]; why: string }[] = [
  {
    about: 'trigger',
    says: 'The trigger is pulled, the gun held away from everything. What begins?',
    right: 'Gas flows, wire feeds, and the wire is live',
    wrong: [
      'Gas flows; wire and current come at the arc',
      'The wire feeds; nothing else yet',
      'The arc burns at the tip',
    ],
    why: 'All three at once. That is why the gun points away from everybody before a finger goes to the trigger.',
  },
  {
    about: 'armOpen',
    says: 'The pressure arm is open and the trigger is pulled. What happens?',
    right: 'Gas flows and the wire is live, but it does not feed',
    wrong: ['Nothing: the machine is off with the arm open', 'Only the gas flows', 'The wire feeds by itself'],
    why: 'The rolls turn without gripping. Gas can be read so, and the wire still burns whoever touches it.',
  },
  {
    about: 'gunDown',
    says: 'The gun lies on the bench on its trigger. What can happen?',
    right: 'Wire feeds out and strikes an arc on the bench',
    wrong: ['Nothing, as long as the clamp is off', 'The machine switches off', 'Only gas is lost'],
    why: 'It hangs on its hanger, off its trigger, whenever it is out of the hand.',
  },
]
/** What comes last where it is tried first. */
const TOO_MUCH = [
  'Put a new liner in',
  'Turn the pressure up',
  'Change the spool of wire',
  'Set another voltage',
] as const

/** So many questions, no two about the same thing; seeded, so that the same seed asks the same. */
export function makeQuiz(shop: QuizShop, of: { many: number; random: () => number }): Question[] {
  const { random } = of
  const all = [
    ...named(shop, random),
    ...fitting(shop, random),
    ...triggers(random),
    ...firsts(shop, random),
    ...pairs(random),
  ]
  const byKind = QUIZ_KINDS.map((kind) =>
    shuffled(
      all.filter((q) => q.kind === kind),
      random,
    ),
  )
  const asked: Question[] = []
  for (let round = 0; asked.length < of.many && round < of.many; round++)
    for (const list of byKind) {
      const next = list[round]
      if (next && asked.length < of.many) asked.push(next)
    }
  return asked
}

/** Options in an order of their own, and where the right one came to stand. */
function mixed(right: string, wrong: readonly string[], random: () => number): Pick<Question, 'options' | 'answer'> {
  const options = shuffled([right, ...wrong.filter((w) => w !== right).slice(0, 3)], random)
  return { options, answer: options.indexOf(right) }
}

const named = ({ parts, gunName }: QuizShop, random: () => number): Question[] =>
  parts.length < 4
    ? []
    : parts.map(({ kindKey, name }) => {
        const others = shuffled(
          parts.filter((p) => p.name !== name).map((p) => p.name),
          random,
        )
        const at = columnOf(kindKey)
        return {
          ...{ kind: 'name', about: kindKey, at: at === 'off' ? 'off' : at, shown: null },
          says: `On ${gunName}: what sits here on the wire’s way?`,
          ...mixed(
            name,
            others.filter((o) => !isBeside(o, at, parts)),
            random,
          ),
          why: `Here it is the ${name}.`,
        }
      })
/** Two kinds at one place cannot be told apart by pointing there. */
const isBeside = (name: string, at: ReturnType<typeof columnOf>, parts: QuizShop['parts']) =>
  parts.some((p) => p.name === name && columnOf(p.kindKey) === at)

const fitting = ({ fits, gunName, wireName }: QuizShop, random: () => number): Question[] =>
  fits
    .filter((f) => f.wrong.length > 0)
    .map((f) => ({
      ...{ kind: 'fits', about: f.kindKey, at: null, shown: null },
      says: `${gunName} runs ${wireName ?? 'the wire that is on'}. Which ${f.name} goes on?`,
      ...mixed(
        f.right,
        f.wrong.map((w) => w.says),
        random,
      ),
      why: f.wrong
        .slice(0, 2)
        .map((w) => `${w.says}: ${w.why}`)
        .join(' '),
    }))

const triggers = (random: () => number): Question[] =>
  TRIGGER.map(({ about, says, right, wrong, why }) => ({
    ...{ kind: 'trigger', about, says, at: null, shown: null },
    ...mixed(right, wrong, random),
    why,
  }))

const firsts = (shop: QuizShop, random: () => number): Question[] =>
  shop.firsts.map(({ symptom, says, look, how }) => ({
    ...{ kind: 'first', about: symptom, at: null, shown: null },
    says: `${says}. What first?`,
    ...mixed(look, shuffled(TOO_MUCH, random), random),
    why: `${how} A look costs seconds; the others cost minutes, and change something nobody asked about.`,
  }))

const pairs = (random: () => number): Question[] =>
  PAIR_KEYS.map((pair) => {
    const panel = random() < 0.5 ? 0 : 1
    return {
      ...{ kind: 'pair', about: pair, at: null, shown: { pair, panel } },
      says: `${PAIRS[pair].name}: right or wrong?`,
      ...{ options: ['right', 'wrong'], answer: panel },
      why: PAIRS[pair].why,
    }
  })
