/**
 * What can hurt a hand at this work. A step or check names what it meets; the words stand where the hand is about to be.
 * They defer to the site's lock-out practice, the maker's manual and licensed trades; a site may put its own words in place.
 */
export const HAZARDS = [
  'isolate',
  'hot',
  'live',
  'spring',
  'coil',
  'stab',
  'trigger',
  'circuit',
  'cylinder',
  'air',
  'ladder',
  'clothing',
  'arc',
] as const
export type Hazard = (typeof HAZARDS)[number]

export interface Caution {
  /** In two or three words: what a near miss nearly was. */
  name: string
  words: string
  /** Ask: the step is not done before it is answered. Tell: it is read in passing. */
  how: 'ask' | 'tell'
  /** What the one key says that answers it. */
  answer: string | null
}
const tell = (name: string, words: string): Caution => ({ name, words, how: 'tell', answer: null })
const ask = (name: string, words: string, answer: string): Caution => ({ name, words, how: 'ask', answer })

export const CAUTIONS: Record<Hazard, Caution> = {
  isolate: ask(
    'power on, hands in',
    'Isolate by the site’s own lock-out practice; the maker’s manual comes before this list. Inside the machine is a licensed trade’s.',
    'It is isolated',
  ),
  hot: tell('hot part', 'Nozzle and tip stay hot for minutes: cold first, or a glove.'),
  live: ask(
    'live feeder',
    'Live while it feeds: hands and tools off the rolls, the gun off its trigger till you mean it.',
    'Hands and tools are clear',
  ),
  spring: tell('spool let go', 'A spool unwinds like a spring: hold its end until it is hooked.'),
  coil: tell(
    'liner sprang open',
    'A coiled liner springs open: eyes covered, cut its tie while you hold it, away from the face.',
  ),
  stab: tell('wire or liner end', 'Wire and liner ends stab: eyes covered, the gun pointed away from everybody.'),
  trigger: tell('gun on its trigger', 'Hang the gun up: never on its trigger, never across the lap.'),
  circuit: ask(
    'wire in circuit',
    'Keep wire, body and work out of the circuit: work clamp off, wood under the wire.',
    'It is out of the circuit',
  ),
  cylinder: tell(
    'cylinder',
    'Cylinder chained before its cap comes off; open and shut its valve by hand, standing aside.',
  ),
  air: ask('air and grit', 'Air throws grit: eyes covered, nobody in front of the gun.', 'Eyes are covered'),
  ladder: tell('ladder', 'A spool that sits high wants a proper ladder and somebody to hand it up.'),
  arc: tell(
    'arc in the eyes',
    'Never look into the arc bare-eyed, nor through a camera’s finder: helmet, or a welding filter before the lens.',
  ),
  clothing: tell(
    'clothing',
    'Dry cotton or leather, boots, jacket, gloves, helmet; no melting cloth, no open pockets.',
  ),
}

export const hazardName = (hazard: Hazard | 'other') => (hazard === 'other' ? 'something else' : CAUTIONS[hazard].name)

/** The words of this site: its own where it has some. */
export const cautionWords = (hazard: Hazard, own: Partial<Record<Hazard, string>>): string =>
  own[hazard] ?? CAUTIONS[hazard].words

/** What a hand may meet at each piece of the path: a step that handles one names at least one of these. */
export const MEETS: Record<string, readonly Hazard[]> = {
  hub: ['spring', 'stab', 'live'],
  spool: ['spring', 'stab', 'ladder', 'live'],
  wire: ['spring', 'stab', 'live', 'trigger'],
  inlet: ['isolate', 'stab', 'live'],
  rolls: ['isolate', 'live', 'circuit'],
  outlet: ['isolate', 'stab', 'live'],
  arm: ['isolate', 'spring', 'live'],
  plug: ['isolate', 'trigger'],
  pin: ['isolate', 'trigger', 'stab'],
  orings: ['isolate', 'stab'],
  linerNut: ['stab', 'coil', 'hot'],
  liner: ['coil', 'stab', 'hot', 'air'],
  diffuser: ['hot', 'stab'],
  clampring: ['hot', 'stab'],
  setScrew: ['hot', 'stab'],
  insulator: ['hot', 'stab'],
  tip: ['hot', 'stab', 'live'],
  nozzle: ['hot', 'stab', 'live'],
  cylinder: ['cylinder'],
  gas: ['cylinder', 'air', 'live'],
  machine: ['isolate', 'clothing', 'trigger', 'live'],
}

/** On paper a caution stands where it first holds: those the step before did not have. */
export const newlyHeld = <C extends { hazard: Hazard }>(now: readonly C[], before: readonly C[] = []): C[] =>
  now.filter((c) => !before.some((b) => b.hazard === c.hazard))
