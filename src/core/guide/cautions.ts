/**
 * What can hurt a hand at this work. A step or check names what it meets; the words stand where the hand is about to be.
 * They defer to the site's lock-out practice, the maker's manual and licensed trades; a site may put its own words in place.
 */
export const HAZARDS = [
  'isolate',
  'robot',
  'arm',
  'fedInCell',
  'teach',
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
  robot: ask(
    'robot not locked off',
    'Robot and feeder made safe by the cell’s own lock-out practice, stored air let out, before anybody goes in; only people who belong to this cell. The maker’s manual and the site’s robot people come before this list.',
    'The cell is safe',
  ),
  arm: tell(
    'arm in motion',
    'Nobody within the arm’s reach while it can move; wire and gas are asked for from outside the guard.',
  ),
  fedInCell: ask(
    'fed with somebody inside',
    'Fed with everybody outside the guard, or by the site’s own teach practice; hands and tools off the rolls.',
    'Everybody is clear',
  ),
  teach: ask(
    'robot moved with somebody inside',
    'In teach mode at slow speed, the enabling switch in your own hand, by somebody trained for this robot; everybody else outside the guard. The site’s robot people come before this list.',
    'I hold the enabling switch',
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
  stab: tell('wire or liner end', 'Wire and liner ends stab: eyes covered, the end pointed away from everybody.'),
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
  air: ask('air and grit', 'Air throws grit: eyes covered, nobody in front of where it comes out.', 'Eyes are covered'),
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

/** What a hand at a robot meets instead of what one at a hand gun does. */
const IN_CELL: Partial<Record<Hazard, Hazard>> = { isolate: 'robot', live: 'fedInCell', trigger: 'arm' }
/** The hazards of a step, a check, a reading as they are where it is done. */
export const hazardsIn = (hazards: readonly Hazard[], isCell: boolean): Hazard[] =>
  isCell ? [...new Set(hazards.map((h) => IN_CELL[h] ?? h))] : hazards.filter((h) => !OF_CELLS.has(h))
const OF_CELLS: ReadonlySet<Hazard> = new Set<Hazard>(['arm', 'fedInCell', 'teach'])

/** What a hand may meet at each piece of the path: a step that handles one names at least one of these. */
export const MEETS: Record<string, readonly Hazard[]> = {
  hub: ['spring', 'stab', 'live', 'fedInCell'],
  spool: ['spring', 'stab', 'ladder', 'live', 'fedInCell'],
  wire: ['spring', 'stab', 'live', 'fedInCell', 'trigger', 'arm'],
  inlet: ['isolate', 'robot', 'stab', 'live', 'fedInCell'],
  rolls: ['isolate', 'robot', 'live', 'fedInCell', 'circuit'],
  outlet: ['isolate', 'robot', 'stab', 'live', 'fedInCell'],
  arm: ['isolate', 'robot', 'spring', 'live', 'fedInCell'],
  plug: ['isolate', 'robot', 'trigger', 'arm'],
  pin: ['isolate', 'robot', 'trigger', 'arm', 'stab'],
  orings: ['isolate', 'robot', 'stab'],
  linerNut: ['stab', 'coil', 'hot'],
  liner: ['coil', 'stab', 'hot', 'air'],
  diffuser: ['hot', 'stab'],
  clampring: ['hot', 'stab'],
  setScrew: ['hot', 'stab'],
  insulator: ['hot', 'stab'],
  tip: ['hot', 'stab', 'live', 'fedInCell'],
  nozzle: ['hot', 'stab', 'live', 'fedInCell'],
  cylinder: ['cylinder'],
  gas: ['cylinder', 'air', 'live', 'fedInCell'],
  machine: ['isolate', 'robot', 'clothing', 'trigger', 'arm', 'live', 'fedInCell'],
}

/** On paper a caution stands where it first holds: those the step before did not have. */
export const newlyHeld = <C extends { hazard: Hazard }>(now: readonly C[], before: readonly C[] = []): C[] =>
  now.filter((c) => !before.some((b) => b.hazard === c.hazard))
