import { type KindKey } from '@core/path/columns.ts'
import { feedSeconds, pathM } from './feed.ts'
import { type FamilyFit, type Joint, type PartFacts, type Setup } from '@core/rightparts/facts.ts'
import { type OpenAt } from './open.ts'
import { type GuideRules } from './rules.ts'
import { type ShopWords, type Step } from './step.ts'
import { tightWords } from './tight.ts'

/** A gun as it stands, how the shop does it, and what would go on: all that a guide is made from. */
export interface GuideAt extends ShopWords {
  setup: Setup
  rules: GuideRules
  /** The right part of a kind from the shelf; null: the shop has none, or nobody knows. */
  putOf: (kindKey: KindKey) => PartFacts | null
}

/** As much of it as feeding goes by. */
export type FedAt = Pick<GuideAt, 'setup' | 'rules'>

export const fitOf = (at: Pick<GuideAt, 'setup'>): FamilyFit | null => at.setup.family?.fit ?? null
export const hasOn = (at: GuideAt, kindKey: KindKey) => at.setup.parts[kindKey] !== undefined
export const openAt = (at: GuideAt): OpenAt => ({
  fit: fitOf(at),
  rules: at.rules,
  hasClampRing: fitOf(at)?.hasClampRing === true || hasOn(at, 'clampring'),
})

/** "Contact tip 1.0 (K-10)", or only the word where nobody knows which. */
export function partWords(at: GuideAt, kindKey: KindKey, word: string): string {
  const part = at.putOf(kindKey) ?? at.setup.parts[kindKey]
  return part ? `${part.name} (${part.code})` : word
}

/** Made by hand first; then as tight as its joint is made here. */
export const tight = (at: GuideAt, joint: Joint): NonNullable<Step['joint']> => ({
  at: joint,
  words: tightWords(joint, fitOf(at), at.rules),
})

export const pathOf = (at: Pick<GuideAt, 'setup'>) =>
  pathM({ cableM: at.setup.cableM, neckMm: fitOf(at)?.neckMm ?? null })
export const feedingSeconds = (at: FedAt) =>
  feedSeconds({
    lengthM: pathOf(at),
    topMPerMin: at.setup.feeder?.topMPerMin ?? null,
    weldMPerMin: at.setup.procedure?.wireMPerMin ?? null,
    speed: at.rules.speed,
  })
