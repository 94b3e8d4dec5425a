import { describe, expect, it } from 'vitest'
import { indexOf } from '@core/diagnose/belief.ts'
import { type CleanOrChange } from '@core/diagnose/cleanorchange.ts'
import { reckon } from '@core/diagnose/session.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import {
  becauseSentence,
  cameWords,
  choiceWords,
  doneWords,
  hintWords,
  inVainWords,
  orderWords,
  spanWords,
} from './downwords.ts'
import { nextWords, settingsWords, trialWords } from '@web/logbook/tunewords.ts'

const k = indexOf(SHIPPED)
const tip = SHIPPED.causes.find((c) => c.key === 'tipWorn')
const choice = (over: Partial<CleanOrChange> = {}): CleanOrChange => ({
  ...{ first: 'change', because: 'minutes', cleanMin: 1, changeMin: 2, priceMin: 0.5, cleanShare: 0.1 },
  ...over,
})
const words = (over: Partial<CleanOrChange> = {}) => (tip ? choiceWords(choice(over), tip) : '')

describe('clean or change, in words', () => {
  it('says the price in standing, and why', () => {
    expect(words({ because: 'none', first: 'clean' })).toMatch(/^None on the shelf: clean the tip/)
    expect(words({ because: 'gone', first: 'change' })).toMatch(
      /^None on the shelf, and no cleaning mends this one: fetch a tip/,
    )
    expect(words({ because: 'seen' })).toBe('A new tip is 2 min, and as dear as 30 s of standing.')
    expect(words({ because: 'rule', first: 'clean' })).toMatch(/^House rule: clean the tip first/)
    expect(words({ first: 'clean', cleanShare: 0.5 })).toContain('Clean it first: 1 min, and does it 5 in 10.')
    expect(words({ priceMin: null })).toContain('not worth its 1 min')
  })
})

describe('why a look comes now', () => {
  it('names the likeliest of what it is about, with what of the gun speaks for it', () => {
    const hints = [
      {
        cause: 'linerWorn',
        factor: 30,
        sign: 'reading' as const,
        because: { how: 'read' as const, what: 'tension' as const },
      },
    ]
    const at = reckon(k, { symptom: 'jerk', said: [] }, { hints })
    const check = k.checkOf.get('straighten')
    if (!check) throw new Error('no such check')
    expect(becauseSentence({ kind: 'check', check }, at, hints)).toMatch(
      /Groove worn in the liner: .*since readings of drive tension speak for it/,
    )
  })
  it('speaks of what is new rather than of what was looked at already', () => {
    const at = reckon(k, {
      symptom: 'porosity',
      said: [{ type: 'check', key: 'gunSeat', outcome: 'well' }],
    })
    const check = k.checkOf.get('flow')
    if (!check) throw new Error('no such check')
    expect(becauseSentence({ kind: 'check', check }, at, [])).toMatch(/^Gas flow set wrong/)
  })
  it('whose order it is, and short spans in seconds', () => {
    expect(orderWords(0)).toContain('none of your own')
    expect(orderWords(12)).toBe('Order by 12 stops of your own beside the trade’s guess, which counts as 30.')
    expect([spanWords(0.3), spanWords(2)]).toEqual(['18 s', '2 min'])
    expect(hintWords({ how: 'read', what: 'cleaning' })).toBe('the nozzle closes ever faster')
  })
})

describe('trials, in words', () => {
  it('what was better stays, the rest goes back, in the shop’s units', () => {
    const trial = { name: 'wireSpeed', from: 8, to: 9, saw: 'better' } as const
    expect(trialWords(trial, 'metric')).toBe('Wire speed 8 m/min to 9 m/min: better, it stays.')
    expect(trialWords({ ...trial, saw: 'worse' }, 'us')).toBe(
      'Wire speed 315 in/min to 354 in/min: worse, back to 315 in/min.',
    )
    const blind = { name: 'volts', from: null, to: 21, saw: 'same' } as const
    expect(trialWords(blind, 'metric')).toBe('Volts to 21 V: the same, back to what it was.')
  })
  it('settings that worked as one line', () => {
    expect(settingsWords({ volts: 20, wireSpeed: 9 }, 'metric')).toBe('wire speed 9 m/min, volts 20 V')
    expect(settingsWords({ flow: 14 }, 'metric')).toBe('gas flow 14 L/min')
  })
  it('what next, and why just that', () => {
    expect(nextWords({ name: 'wireSpeed', way: null, because: 'speedFirst' })).toMatch(/^Wire speed first:/)
    expect(nextWords({ name: 'volts', way: 'up', because: 'together' })).toBe(
      'Volts once more, up: speed and volts set one arc together.',
    )
    expect(nextWords({ name: 'flow', way: null, because: 'notYet' })).toBe('Gas flow next.')
  })
})

describe('where the knowledge is poor', () => {
  it('says what was looked at for nothing, and nothing where nothing was', () => {
    expect(inVainWords([])).toBe('')
    expect(
      inVainWords([
        { says: 'Look at the tip’s face', n: 3 },
        { says: 'A draught?', n: 1 },
      ]),
    ).toBe('Found nothing: look at the tip’s face (3), a draught (1).')
  })
})

describe('the last page', () => {
  const fix = { do: 'x', effort: 'E1', act: null, position: null, hazards: [] } as const
  it('says what was done about what stands', () => {
    expect([0, 1, 2].map((n) => doneWords(n, { fix }))).toEqual([
      'Nothing was done about it.',
      'Done once, no help.',
      'Done 2 times, no help.',
    ])
    expect(doneWords(0, { fix: { ...fix, isLicensed: true } })).toBe('Not here: a licensed trade’s.')
  })
})

describe('the shop’s own lists', () => {
  it('say what came from the trade since', () => {
    expect(cameWords({ symptoms: 0, causes: 0, checks: 0 })).toBe('')
    expect(cameWords({ symptoms: 0, causes: 1, checks: 3 })).toBe(
      ' New from the trade since, and in it: one cause, three looks.',
    )
  })
})
