import { type CarrierId, type WireId } from '@core/ids/id.ts'
import { byTime, type Standing } from '@core/ledger/resolve.ts'
import { labelSdKg, type Left } from './left.ts'

/**
 * One spool's story from its standing facts.
 *
 *   came in ──loaded──> on a feeder ──taken off──> on the shelf ──loaded──> … ──gone──> gone
 *
 * 1. Pure, and the same in whatever order the facts came in.
 * 2. `base` is what was on it when somebody last knew: its label, a weighing, a measuring, or what was said.
 * 3. Loading it elsewhere takes it off where it was.
 */
export interface SpoolStory {
  wireId: WireId | null
  labelKg: number | null
  lot: string | null
  tareKg: number | null
  inMs: number
  on: { headId: CarrierId; sinceMs: number } | null
  base: (Left & { atMs: number; how: 'label' | 'weighed' | 'measured' | 'said' }) | null
  lostKg: number
  goneMs: number | null
  /** What was thrown away with it; null where nobody said. */
  goneKg: number | null
}

export function foldSpool(facts: readonly Standing[]): SpoolStory | null {
  const ordered = [...facts].sort(byTime)
  const first = ordered.find((f) => f.fact.kind === 'spoolIn')
  if (first?.fact.kind !== 'spoolIn') return null
  const { wireId, labelKg, lot, tareKg } = first.fact
  const story: SpoolStory = {
    wireId,
    labelKg,
    lot,
    tareKg,
    inMs: first.happenedMs,
    on: null,
    base: labelKg === null ? null : { kg: labelKg, sdKg: labelSdKg(labelKg), atMs: first.happenedMs, how: 'label' },
    lostKg: 0,
    goneMs: null,
    goneKg: null,
  }
  for (const standing of ordered) apply(story, standing)
  return story
}

function apply(story: SpoolStory, { fact, happenedMs: atMs }: Standing): void {
  switch (fact.kind) {
    case 'wireLoaded':
      story.on = { headId: fact.carrierId, sinceMs: atMs }
      story.goneMs = null
      return
    case 'wireOff':
      story.on = null
      if (fact.leftKg !== null) story.base = { kg: fact.leftKg, sdKg: fact.sdKg ?? 0, atMs, how: 'said' }
      return
    case 'spoolRead':
      story.base = { kg: fact.leftKg, sdKg: fact.sdKg, atMs, how: fact.how }
      return
    case 'wireLost':
      story.lostKg += fact.kg
      return
    case 'spoolGone':
      story.on = null
      story.goneMs = atMs
      story.goneKg = fact.leftKg
      return
    default:
      return
  }
}
