import { bendErrorMm } from '@core/liner/trim.ts'
import { ruleByBuild, SHORT_OF_ROLLS_MM } from '@core/liner/rule.ts'
import { isHot, type FamilyFit, type PartFacts } from '@core/rightparts/facts.ts'
import { type DrawingKey } from '@core/drawings/drawing.ts'
import { fitOf, openAt, partWords, pathOf, type GuideAt } from './guideat.ts'
import { linerOpens } from './open.ts'
import { step, type Step } from './step.ts'

/** The liner that goes in, or the one that is known to be in. */
export const linerOf = (at: GuideAt): PartFacts | null => at.putOf('liner') ?? at.setup.parts['liner'] ?? null
export const isTube = (at: GuideAt): boolean => {
  const kind = linerOf(at)?.fit?.linerKind
  return kind === 'polymer' || kind === 'graphite-filled'
}
/** What a liner is cut with goes by what it is made of (D08). */
export const cutterOf = (at: GuideAt) =>
  at.rules.cutter === 'byMaterial' && isTube(at) ? 'hose cutter' : 'side cutters'

/**
 * Which end is cut, and by which rule (D07): a tube that runs up to the rolls, or any liner where the shop cuts there, at the feeder;
 * else at the front by the family's rule, or like the old one where the shop copies.
 */
export type TrimBy = 'A' | 'B' | 'C' | 'feeder' | 'notTold'
export function trimBy(at: GuideAt): TrimBy {
  const { trim } = at.rules
  if (trim === 'feederEnd' || (isTube(at) && at.setup.feeder?.runsLinerToRolls)) return 'feeder'
  if (trim === 'old') return 'C'
  return fitOf(at)?.linerRule ?? 'notTold'
}

/** The fit that a trim is worked out by: the family's, with the rule the shop's school puts in its place. */
export function trimFit(at: GuideAt): FamilyFit | null {
  const fit = fitOf(at)
  return fit && at.rules.trim === 'old' ? { ...fit, linerRule: 'C' } : fit
}

/** A usual conduit and liner where neither was measured, mm: guesses, the play may be half or twice. */
export const USUAL_BEND = { conduitBoreMm: 6, linerOutsideMm: 4.5 } as const
const QUARTER_RAD = Math.PI / 2

/** How far off a cut comes out for each quarter bend left in the cable, mm: a guess, with its span. */
export function quarterBendMm(): { mm: number; fromMm: number; toMm: number } {
  const mm = bendErrorMm({ ...USUAL_BEND, bendRad: QUARTER_RAD })
  return { mm, fromMm: mm / 2.5, toMm: mm * 2.5 }
}

/**
 * What is done with the liner between opening and closing: `work` before its nut is on, `middle` after, `seated` with the gun in. One
 * that copies the old length is cut on the bench, beside the old one, before it goes in.
 */
export function linerWork(at: GuideAt): { work: Step[]; middle: Step[]; seated: Step[] } {
  const by = trimBy(at)
  const onBench = by === 'C' ? [trimStep(at, by)] : []
  return {
    work: [oldOutStep(at), ...airSteps(at), oringStep, unpackStep(at), ...roughCutSteps(at), ...onBench, pushStep(at)],
    middle: by === 'feeder' || by === 'C' ? [] : [trimStep(at, by)],
    seated: by === 'feeder' ? [feederTrimStep(at)] : [],
  }
}

const frontOpen = (at: GuideAt) => linerOpens(openAt(at))

/** From this current on a gun bakes what is in it: a guess. */
const HOT_AMPS = 250
/** Spray and pulse, or a procedure of much current: the liner may be baked in (P144). */
const isRunHot = ({ setup: { mode, procedure } }: GuideAt): boolean =>
  isHot(mode) || (procedure?.amps?.[1] ?? 0) >= HOT_AMPS

const oldOutStep = (at: GuideAt): Step =>
  step('work', 'off', {
    key: 'oldOut',
    do: 'Pull the old liner out by hand, from the rear, and lay it straight beside the gun.',
    look: `${isRunHot(at) ? 'This gun runs hot and may hold it baked in: allow ten minutes; pliers are for this old one only. ' : 'It holds: pliers are for this old one only. '}Measure it before it is binned: its length, and what is wrong with it, and where.`,
    hazards: ['coil'],
    minutes: isRunHot(at) ? 5 : 2,
    works: ['liner'],
    needs: [...frontOpen(at), 'nutOff', 'straight'],
    makes: ['linerOut'],
    gate: 'oldLiner',
  })

/** In this job the tube is empty, and it is blown from the feeder forward, only where the shop blows at all (D01, P145, P200). */
function airSteps(at: GuideAt): Step[] {
  const { air } = at.rules
  if (air === 'never') return []
  return [
    step('work', 'off', {
      key: 'air',
      do: `Blow the empty cable out, from the feeder end forward. Never from the weld end${air === 'fittedToo' ? '' : ', never with a liner in it'}.`,
      look:
        air === 'fittedToo'
          ? 'Air felt at the front shows the way is open. A fitted liner that was blown has had a day’s grace and is still full: it is changed.'
          : 'Air felt at the front shows the way is open. It may be skipped.',
      hazards: ['air'],
      minutes: 0.5,
      works: ['gas'],
      needs: ['linerOut'],
      gate: 'air',
      byRule: 'D01',
    }),
  ]
}

const oringStep = step('work', 'off', {
  key: 'oringsSeen',
  do: 'The gun is out: look at both O-rings on its pin.',
  look: 'A piece missing, flat or hard: new ones now, before it goes back.',
  hazards: ['stab'],
  minutes: 0.5,
  works: ['orings'],
  needs: ['gunOut'],
  drawing: 'oring',
  settles: 'orings',
})

function unpackStep(at: GuideAt): Step {
  const name = partWords(at, 'liner', 'The new liner')
  return step('work', 'off', {
    key: 'unpack',
    do: isTube(at)
      ? `Unroll ${name} and let it lie straight.`
      : `${name}: cut its tie while you hold the coil, unwind it away from your face, lay it straight.`,
    look: 'The O-ring on its nut is not nicked. No kink: a kinked one is scrap before it is in.',
    hazards: ['coil'],
    minutes: 1,
    works: ['liner'],
    needs: ['linerOut'],
  })
}

/** So much over the way from tip to rolls is left for the cut that counts; less than that too long, it is not worth a cut of its own. */
const SPARE_M = 0.15
const ROUGH_FROM_M = 0.3
/** A liner is sold long: cut at the rolls, the rest would stand through them while the gun is seated (P041). */
function roughCutSteps(at: GuideAt): Step[] {
  const boughtM = linerOf(at)?.fit?.lengthM ?? null
  if (trimBy(at) !== 'feeder' || boughtM === null || at.setup.cableM === null) return []
  const wantedM = pathOf(at) + SPARE_M
  if (boughtM - wantedM < ROUGH_FROM_M) return []
  return [
    step('work', 'off', {
      key: 'roughCut',
      do: `Rough cut on the bench: ${at.lengthWord(wantedM)}, measured from its front. What is over comes off now, or it stands through the rolls.`,
      look: `The cut that counts follows with the gun in its socket. Cut with the ${cutterOf(at)}.`,
      hazards: ['stab'],
      minutes: 1.5,
      works: ['liner'],
      needs: ['linerOut'],
      byRule: 'D07',
    }),
  ]
}

function pushStep(at: GuideAt): Step {
  const coated = linerOf(at)?.fit?.linerKind === 'coated steel coil'
  return step('work', 'off', {
    key: 'push',
    do: `Liner in from the rear, by hand. It should glide. ${coated ? 'Dead straight in: bent, its coating shreds. ' : ''}Near the neck very short pushes; a jiggle, or somebody lifts the cable.`,
    look: 'Never forced, never pliers on a new one. Kinked is scrap, however straight it looks afterwards.',
    hazards: ['stab'],
    minutes: Math.max(2, at.minutesOf('liner') / 4),
    works: ['liner'],
    needs: ['linerOut', 'straight'],
    undoes: ['linerOut'],
    drawing: 'kink',
    swap: 'liner',
    gate: 'push',
  })
}

const TRIM_WORDS: Record<Exclude<TrimBy, 'feeder'>, { do: string; drawing: DrawingKey }> = {
  A: {
    do: 'Press on the liner’s end until it is home at its nut, and keep it there. Measure what stands out of the neck.',
    drawing: 'standOutA',
  },
  B: {
    do: 'Let the liner lie free, its nut home. Measure what stands out of the tip holder’s face.',
    drawing: 'standOutB',
  },
  C: {
    do: 'Lay the new liner beside the old one, ends together, both straight, and measure its whole length.',
    drawing: 'lengthC',
  },
  notTold: {
    do: 'Nobody has told how this family’s liner is cut: ask the lead before anything is cut off.',
    drawing: 'linerEnd',
  },
}

function trimStep(at: GuideAt, by: Exclude<TrimBy, 'feeder'>): Step {
  const fit = fitOf(at)
  const { mm } = quarterBendMm()
  const target =
    by === 'A' && fit?.seatDepthMm != null
      ? `${at.ruleWord(fit.seatDepthMm)} must stand out in the end. `
      : by === 'B' && fit?.pushBackMm != null
        ? `${at.ruleWord(fit.pushBackMm)} must stand out in the end, and the tip presses them home: pushed back ${at.ruleWord(fit.pushBackMm)}, it is level. `
        : by === 'C' && fit && ruleByBuild(fit)
          ? `By its build this family should be cut by rule ${ruleByBuild(fit)}: tell the lead. `
          : ''
  return step('work', 'off', {
    key: 'trim',
    do: TRIM_WORDS[by].do,
    look: `${target}Two cuts from two measurements: what is off does not come back. Each quarter bend left in the cable puts it off by about ${at.ruleWord(mm)}. Cut with the ${cutterOf(at)}; no burr, no sharp end.`,
    hazards: ['stab'],
    minutes: 4,
    works: ['liner'],
    needs: by === 'C' ? ['linerOut'] : ['straight', ...frontOpen(at)],
    drawing: TRIM_WORDS[by].drawing,
    gate: 'trim',
    byRule: 'D07',
  })
}

function feederTrimStep(at: GuideAt): Step {
  return step('work', 'off', {
    key: 'trimFeeder',
    do: 'With the gun in its socket, arm open: measure from where the liner leaves its guide’s seat to its end, and to where the rolls meet.',
    look: `It ends ${at.spanWord(SHORT_OF_ROLLS_MM)} short of the rolls. Gun out for each cut, and in again to measure; the ${cutterOf(at)} leaves a round end. Cut short means a second liner.`,
    hazards: ['isolate', 'stab'],
    minutes: 6,
    works: ['liner', 'rolls'],
    needs: ['armOpen'],
    drawing: 'feederEnd',
    gate: 'trimFeeder',
    byRule: 'D07',
  })
}
