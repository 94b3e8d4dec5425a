import { type FamilyFit, type NozzleStyle } from '@core/rightparts/facts.ts'
import { type GuideRules } from './rules.ts'
import { step, type Condition, type Step } from './step.ts'

/** What opening a gun goes by: how its family is built, what it has on, and how the shop does it. */
export interface OpenAt {
  fit: FamilyFit | null
  rules: GuideRules
  hasClampRing: boolean
}

/**
 * Whether a set screw comes out before the diffuser (D24). Where the family is known to have one there is no school about it: turned
 * first, the diffuser twists the liner. Where nobody has told, it is looked for, except where the shop just unscrews.
 */
export function setScrew({ fit, rules }: Pick<OpenAt, 'fit' | 'rules'>): 'has' | 'look' | 'none' {
  if (fit?.linerHeldBy === 'set screw') return 'has'
  if (rules.setScrew === 'screwFirst') return 'look'
  return rules.setScrew === 'family' && (fit?.linerHeldBy ?? null) === null ? 'look' : 'none'
}

/** Which school decided about the screw: none does where the family is known. */
export const screwRule = ({ fit }: Pick<OpenAt, 'fit'>) =>
  (fit?.linerHeldBy ?? null) === null ? ('D24' as const) : null

/** In families cut level with the tip holder the liner runs through it: the holder stays on, and what stands out is measured from it. */
export const isThroughHolder = ({ fit }: Pick<OpenAt, 'fit'>) => fit?.linerRule === 'B'

/** What has to be open at the front before a liner can be drawn out to the rear. */
export function linerOpens(at: OpenAt): Openable[] {
  if (!isThroughHolder(at)) return ['diffuserOff']
  return setScrew(at) === 'none' ? ['tipOff'] : ['screwOut']
}

const OFF_WORDS: Record<GuideRules['power'], string> = {
  twoStates: 'Power off at the machine.',
  always: 'Power off at the machine. It stays off for all work; only feeding has it on.',
  unplug: 'Power off and unplugged.',
}
export const isolateStep = ({ rules }: Pick<OpenAt, 'rules'>): Step =>
  step('off', 'off', {
    key: 'isolate',
    do: OFF_WORDS[rules.power],
    hazards: ['isolate'],
    minutes: 0.5,
    works: ['machine'],
    byRule: 'D11',
  })

/** Power on again, where no wire is fed behind it. */
export const POWER_BACK = step('close', 'either', {
  key: 'powerBack',
  do: 'Power back on. Gun hung up, hands off the trigger.',
  minutes: 0.2,
  hazards: ['trigger'],
  works: ['machine'],
})

/** How each thing is opened or taken off; what it needs off before it goes by the family. */
export const OPENERS = {
  nozzleOff: (at: OpenAt): Step =>
    step('off', 'off', {
      key: 'nozzleOff',
      ...nozzleWords(at),
      hazards: ['hot'],
      minutes: 0.5,
      works: ['nozzle'],
      makes: ['nozzleOff'],
      byRule: at.fit?.nozzleStyle ? null : 'D23',
    }),
  wireSnipped: (): Step =>
    step('off', 'off', {
      key: 'snip',
      do: 'Snip the wire close to the tip, behind its ball.',
      hazards: ['stab'],
      minutes: 0.2,
      works: ['wire'],
      needs: ['nozzleOff'],
      makes: ['wireSnipped'],
    }),
  tipOff: (): Step =>
    step('off', 'off', {
      key: 'tipOff',
      do: 'Tip off. If it does not run freely: stop, do not force it.',
      look: 'A forced tip takes the diffuser with it.',
      hazards: ['hot'],
      minutes: 0.8,
      works: ['tip'],
      needs: ['nozzleOff', 'wireSnipped'],
      makes: ['tipOff'],
    }),
  insulatorOff: (): Step =>
    step('off', 'off', {
      key: 'insulatorOff',
      do: 'Insulator off, by hand.',
      hazards: ['hot'],
      minutes: 0.4,
      works: ['insulator'],
      needs: ['nozzleOff'],
      makes: ['insulatorOff'],
    }),
  clampOff: (): Step =>
    step('off', 'off', {
      key: 'clampOff',
      do: 'Clamp ring off.',
      hazards: ['hot'],
      minutes: 0.5,
      works: ['clampring'],
      needs: ['tipOff'],
      makes: ['clampOff'],
    }),
  screwOut: (at: OpenAt): Step =>
    step('off', 'off', {
      key: 'screwOut',
      do:
        setScrew(at) === 'look'
          ? 'Look for a set screw; where there is one it comes out before the diffuser: else the liner twists along.'
          : 'Set screw out, before the diffuser: else the liner twists along.',
      look: 'Into the tray with it: it goes back in.',
      hazards: ['hot'],
      minutes: 1,
      works: ['setScrew'],
      needs: ['tipOff'],
      makes: ['screwOut'],
      byRule: screwRule(at),
    }),
  diffuserOff: (at: OpenAt): Step =>
    step('off', 'off', {
      key: 'diffuserOff',
      do: 'Diffuser off, with its own tool.',
      look: STIFF[at.rules.thread],
      hazards: ['hot'],
      minutes: 1,
      works: ['diffuser'],
      needs: [
        'tipOff',
        ...(at.hasClampRing ? (['clampOff'] as const) : []),
        ...(setScrew(at) !== 'none' ? (['screwOut'] as const) : []),
      ],
      makes: ['diffuserOff'],
      byRule: screwRule(at),
    }),
  armOpen: (): Step =>
    step('off', 'off', {
      key: 'armOpen',
      do: 'Note the mark on the knob. Pressure arm open, holding the wire at the spool.',
      look: 'The arm goes back to the same mark.',
      hazards: ['spring'],
      minutes: 0.3,
      works: ['arm'],
      makes: ['armOpen'],
    }),
  wireOut: ({ rules }: OpenAt): Step =>
    step('off', 'off', {
      key: 'wireOut',
      ...wireOutWords(rules),
      hazards: ['spring'],
      works: ['wire'],
      needs: ['tipOff', 'armOpen'],
      makes: ['wireOut'],
      byRule: 'D15',
    }),
  plugOff: ({ fit }: OpenAt): Step =>
    step('off', 'off', {
      key: 'plugOff',
      do:
        fit?.plug === 'tabs'
          ? 'Both control tabs off, pulled by the tab and not by the wire.'
          : fit?.plug === 'keyed'
            ? 'Control plug: ring back, then straight out.'
            : 'Control plug off.',
      hazards: ['trigger'],
      minutes: 0.3,
      works: ['plug'],
      makes: ['plugOff'],
    }),
  gunOut: (): Step =>
    step('off', 'off', {
      key: 'gunOut',
      do: 'Loosen the gun’s lock. Pull it straight out by the pin, with a small twist.',
      look: 'Loose and still held: that is its O-rings, not the lock. Never pull at the cable.',
      hazards: ['stab'],
      minutes: 1,
      works: ['pin'],
      needs: ['wireOut', 'plugOff'],
      makes: ['gunOut'],
    }),
  straight: (): Step =>
    step('off', 'off', {
      key: 'straight',
      do: 'Lay the gun out dead straight on clear floor or bench, both ends free.',
      look: 'No coil, no bend under a bench. It stays so until the last cut.',
      hazards: ['stab'],
      minutes: 1,
      works: ['pin'],
      needs: ['gunOut'],
      makes: ['straight'],
      drawing: 'cableStraight',
    }),
  nutOff: (): Step =>
    step('off', 'off', {
      key: 'nutOff',
      do: 'Liner nut off: hold the flats behind the boot, turn the nut.',
      look: 'It turns hard, since it winds the coil in its jacket: that is not stuck. Clip, gland and guide into the tray: they go back on.',
      hazards: ['coil'],
      minutes: 1,
      works: ['linerNut'],
      needs: ['straight'],
      makes: ['nutOff'],
    }),
} satisfies Partial<Record<Condition, (at: OpenAt) => Step>>
export type Openable = keyof typeof OPENERS
const ORDER = Object.keys(OPENERS) as Openable[]
const isOpenable = (c: Condition): c is Openable => c in OPENERS

/**
 * Steps that open what is wanted and everything that covers it, outermost first: the closure of what each opener needs, in the one
 * order they are listed in.
 * @example openSteps(at, ['diffuserOff']).map((s) => s.key) // nozzleOff, snip, tipOff, screwOut, diffuserOff
 */
export function openSteps(at: OpenAt, wanted: readonly Openable[]): Step[] {
  const all = new Set<Openable>()
  const take = (c: Openable) => {
    if (all.has(c)) return
    all.add(c)
    OPENERS[c](at).needs.filter(isOpenable).forEach(take)
  }
  wanted.forEach(take)
  return ORDER.filter((c) => all.has(c)).map((c) => OPENERS[c](at))
}

/** A thread that catches, by what the shop does with one (D19); by force it is never turned. */
const STIFF: Record<GuideRules['thread'], string> = {
  once: 'Does not run freely: clean it, try once by hand. Forced, it tears the neck’s thread.',
  scrap: 'Does not run freely: it goes, and what it screws into is looked at. Forced, it tears the neck’s thread.',
  file: 'Does not run freely: back in, clean or file the thread, try again by hand. Forced, it tears the neck’s thread.',
}
const STUCK = {
  cause: 'Stuck: grip and turn, gently. If it is crooked, look why: crossed thread, loose insulator, bent neck.',
  knock: 'Stuck: grip and turn. A crooked one may be tapped straight, as a stop-gap; look why the same day.',
} as const
/** How the nozzle comes off goes by its style (P024, P046). */
function nozzleWords({ fit, rules }: OpenAt): { do: string; look: string } {
  const style: NozzleStyle | null = fit?.nozzleStyle ?? null
  const look = STUCK[rules.crooked]
  if (style === 'push-on')
    return {
      do: 'Pull the nozzle off, twisting clockwise.',
      look: `The other way unscrews the insulator under it. ${look}`,
    }
  if (style === 'threaded') return { do: 'Unscrew the nozzle.', look }
  return { do: 'Nozzle off.', look: `Push-on or screwed: try a clockwise twist before you turn it off. ${look}` }
}

function wireOutWords({ cable }: GuideRules): Pick<Step, 'do' | 'look' | 'minutes'> {
  if (cable === 'scrap')
    return {
      do: 'Clip the wire at the spool, hook the spool’s end in its flange. Pull the rest out of the gun, coil it tight, bin it.',
      look: null,
      minutes: 1.5,
    }
  return {
    do: 'Wind the wire back on its spool, out of the gun, and hook its end in the flange.',
    look: cable === 'byState' ? 'Kinked or nested wire is not wound back: clip it and bin it.' : null,
    minutes: 2,
  }
}
