import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { makeQuiz, QUIZ_KINDS, type QuizShop } from './quiz.ts'

const SHOP: QuizShop = {
  gunName: 'T1',
  wireName: 'solid 0.9',
  parts: [
    { kindKey: 'inlet', name: 'inlet guide' },
    { kindKey: 'rolls', name: 'drive rolls' },
    { kindKey: 'liner', name: 'liner' },
    { kindKey: 'diffuser', name: 'diffuser' },
    { kindKey: 'tip', name: 'contact tip' },
    { kindKey: 'nozzle', name: 'nozzle' },
    { kindKey: 'insulator', name: 'insulator' },
  ],
  fits: [{ kindKey: 'tip', name: 'contact tip', right: 'T9 0.9', wrong: [{ says: 'T12 1.2', why: 'Too wide.' }] }],
  firsts: [{ symptom: 'jerk', says: 'It feeds in jerks', look: 'Lay the cable straight', how: 'Feed a little.' }],
}
const quiz = (seed: number, many = 10, shop = SHOP) => makeQuiz(shop, { many, random: makeRandom(seed) })

describe('a quiz of the shop’s own guns', () => {
  it('has one right answer each, no two the same, and asks of every kind', () => {
    for (let seed = 0; seed < 40; seed++) {
      const asked = quiz(seed)
      expect(asked).toHaveLength(10)
      expect(new Set(asked.map((q) => `${q.kind} ${q.about}`)).size).toBe(10)
      for (const q of asked) {
        expect(new Set(q.options).size, q.says).toBe(q.options.length)
        expect(q.options[q.answer], q.says).toBeDefined()
        expect(q.why).not.toBe('')
      }
      expect(new Set(asked.map((q) => q.kind))).toEqual(new Set(QUIZ_KINDS))
    }
  })
  it('asks the same for the same seed, and others for another', () => {
    expect(quiz(7)).toEqual(quiz(7))
    expect(quiz(7)).not.toEqual(quiz(8))
  })
  it('never offers beside the right name another part of the same place', () => {
    const all = Array.from({ length: 30 }, (_, seed) => quiz(seed, 40)).flat()
    const nozzle = all.filter((q) => q.kind === 'name' && q.about === 'nozzle')
    expect(nozzle.length).toBeGreaterThan(0)
    expect(nozzle.every((q) => !q.options.includes('insulator'))).toBe(true)
  })
  it('of a gun nobody told anything of asks only what holds for every gun', () => {
    const bare = quiz(1, 10, { ...SHOP, parts: [], fits: [], firsts: [] })
    expect(new Set(bare.map((q) => q.kind))).toEqual(new Set(['trigger', 'pair']))
  })
  it('the answers of a right-or-wrong question are what its panel is', () => {
    for (const q of quiz(3, 40).filter((x) => x.kind === 'pair'))
      expect(q.options[q.answer]).toBe(q.shown?.panel === 0 ? 'right' : 'wrong')
  })
})
