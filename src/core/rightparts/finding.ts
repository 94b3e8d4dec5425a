import { type KindKey } from '@core/path/columns.ts'
import { type SettingName } from './facts.ts'

/** `stops`: it will not feed or weld, or breaks parts. `harms`: it costs life or quality. `note`: worth knowing. */
export const SEVERITIES = ['stops', 'harms', 'note'] as const
export type Severity = (typeof SEVERITIES)[number]

/** A thing a sentence speaks of; the interface writes it in the shop's units. */
export type Datum =
  | { is: 'size'; mm: number }
  | { is: 'sizes'; fromMm: number; toMm: number }
  | { is: 'length'; m: number }
  | { is: 'depth'; mm: number }
  | { is: 'depths'; fromMm: number; toMm: number }
  | { is: 'text'; text: string }
  | { is: 'groove'; shape: string; sizeMm: number }
  | { is: 'amps'; amps: number }
  | { is: 'share'; fraction: number }
  | { is: 'speed'; mPerMin: number }

/** What to do about it. */
export type Remedy =
  | { do: 'change'; kindKey: KindKey }
  | { do: 'turn'; rolls: readonly number[] }
  | { do: 'set'; name: SettingName; value: string }
  | { do: 'takeOut'; kindKey: KindKey }
  | { do: 'ask' }

interface RuleText {
  /** `{found}` and `{wanted}` are put in. */
  what: string
  why: string
  source: string
}
const rule = (what: string, why: string, source: string): RuleText => ({ what, why, source })

/** What each rule says. Sentences are the shop's; numbers come from the gun. */
export const RULES = {
  tipSmall: rule(
    'The tip is for {found}, the wire is {wanted}: it will not go in.',
    'Wire that meets a hole smaller than itself stops and nests at the rolls.',
    'bore against wire',
  ),
  tipLarge: rule(
    'The tip is for {found}, the wire is {wanted}.',
    'The wire touches copper only now and then: the arc wanders, and the bore wears oval.',
    'bore against wire',
  ),
  tipPlain: rule(
    'A tip of plain bore on aluminium {wanted}.',
    'Hot aluminium grows and sticks in a bore made for steel; its own tips have room.',
    'bore against wire',
  ),
  tipWide: rule(
    'A tip bored for aluminium on {wanted} {found} wire.',
    'Its bore has room for wire that grows; hard wire touches it only now and then.',
    'bore against wire',
  ),
  otherFamily: rule(
    'It is a part of {found}; this gun takes {wanted}.',
    'Threads cross, a liner does not seat, rings do not seal: parts of different families spoil each other.',
    'fit families',
  ),
  otherPin: rule(
    'The gun ends in a pin {found}, the feeder takes {wanted}.',
    'It will not seat, and half seated it leaks gas.',
    'pin and feeder',
  ),
  linerSmall: rule(
    'The liner takes {found}, the wire is {wanted}.',
    'Wire that fills its liner drags all the way.',
    'liner range',
  ),
  linerLarge: rule(
    'The liner takes {found}, the wire is {wanted}.',
    'Thin wire snakes in a wide liner and drags at every wave, although it goes through.',
    'liner range',
  ),
  linerKind: rule(
    'A {found} liner for {wanted} wire.',
    'Aluminium galls on steel: the push it needs is more than the wire can stand.',
    'liner kind',
  ),
  linerSoft: rule('A {found} liner for {wanted} wire.', 'Hard wire grooves it soon; it does not last.', 'liner kind'),
  linerShort: rule(
    'The liner is {found} long, cable and neck are {wanted}.',
    'It ends before the tip: wire has a step to catch on and nothing holds it straight.',
    'liner length',
  ),
  jacketInNeck: rule(
    'The liner’s bare front is {found}, the neck is {wanted}: jacket reaches into the neck.',
    'It melts there and sticks.',
    'jacket and neck',
  ),
  jumpMissing: rule(
    'This family’s neck comes off, and no jump liner is on record.',
    'It is a part of the path that wears by itself.',
    'sub-parts',
  ),
  guideSmall: rule('The guide is for {found}, the wire is {wanted}.', 'Wire has to squeeze through.', 'guides'),
  guideLarge: rule(
    'The guide is for {found}, the wire is {wanted}.',
    'Thin wire has room to buckle between rolls and guide: it nests at the first hitch.',
    'guides',
  ),
  guideSteel: rule(
    'A {found} guide for {wanted} wire.',
    'It shaves soft wire, and the shavings end up in the liner.',
    'guides',
  ),
  grooveShape: rule(
    'The groove that runs is {found}; {wanted} wire wants another shape.',
    'A smooth V grips hard wire, a U carries soft wire, teeth hold cored wire; the wrong one slips, crushes or chews.',
    'groove by wire',
  ),
  grooveSize: rule(
    'The groove that runs is {found}, the wire is {wanted}.',
    'Too wide slips, too narrow shaves.',
    'groove by wire',
  ),
  rollTurned: rule(
    'Turned round: the groove that runs is {found}, the wire is {wanted}.',
    'The right groove is on its other side.',
    'which face is out',
  ),
  rollOdd: rule(
    'One roll reads {found}; the set is {wanted}.',
    'All rolls have to be the same: two sizes pull at different speeds.',
    'all rolls the same',
  ),
  fitRumour: rule(
    'That {found} fits is only heard.',
    'Nobody here has put one on and written down how it went. Try it out at a few guns first (Part life, try-outs).',
    'fit confirmed, claimed or heard',
  ),
  fitClaimed: rule(
    'That {found} fits is its maker’s word.',
    'Nobody here has confirmed it yet; a try-out that ends well does.',
    'fit confirmed, claimed or heard',
  ),
  unwind: rule(
    'Wire leaves the spool {found}; this feeder wants it {wanted}.',
    'A bend before the rolls drags and twists, and it nests.',
    'spool direction',
  ),
  polarity: rule(
    'Polarity is {found}; this wire wants {wanted}.',
    'The wrong way round it spatters and does not burn in.',
    'polarity by wire',
  ),
  gas: rule(
    '{found} with this wire; it wants {wanted}.',
    'The arc and the weld are not what the wire is made for.',
    'gas by wire',
  ),
  gasMode: rule(
    '{found} with {wanted}.',
    'There is no spray under pure CO2: it stays globular and spatters.',
    'gas by mode',
  ),
  tipPosition: rule(
    'The tip stands {found}; here it should stand {wanted}.',
    'Too far out it catches spatter and heat, too far in the wire sticks out too long.',
    'tip position by mode',
  ),
  rating: rule(
    'At {wanted} its {at} may weld {found} of the time.',
    'Beyond that the front runs hot: threads seize and tips burn back.',
    'rating by gas and duty',
  ),
  nozzleStyle: rule(
    'A {found} nozzle; this family’s is {wanted}.',
    'It does not hold, or comes off differently from what hands expect.',
    'nozzle style',
  ),
  reamerBlade: rule(
    'The reamer’s blade is {found}, the nozzle’s bore {wanted}.',
    'It cuts into the nozzle or leaves the spatter.',
    'reamer and nozzle',
  ),
  reamerClamp: rule(
    'The reamer’s clamp is for {found}, the nozzle is {wanted}.',
    'The nozzle turns in it or is squeezed.',
    'reamer and nozzle',
  ),
  otherWire: rule(
    'On it is {found}; the procedure says {wanted}.',
    'Either the spool or the procedure is wrong; the weld is not the one that was tried.',
    'procedure against spool',
  ),
  otherMode: rule('{found} here; the procedure says {wanted}.', 'The settings belong together.', 'procedure'),
  otherGas: rule('{found} here; the procedure says {wanted}.', 'The settings belong together.', 'procedure'),
  procedurePolarity: rule(
    'The procedure says {found}; its wire wants {wanted}.',
    'The procedure contradicts itself: mend it before anybody follows it.',
    'procedure',
  ),
  machineWire: rule(
    'The machine is set for {found}, the wire is {wanted}.',
    'It feeds at the speed of another wire: this is forgotten after most changes.',
    'machine setting',
  ),
  machineMode: rule(
    'The machine is set to {found}; it should be {wanted}.',
    'It welds by another curve.',
    'machine setting',
  ),
  machineMaterial: rule(
    'The machine is set for {found}, the wire is {wanted}.',
    'It welds by another curve.',
    'machine setting',
  ),
  feederSlow: rule(
    'The procedure wants {wanted}; this feeder reaches {found}.',
    'It cannot keep up, and looks like slipping.',
    'feeder speed',
  ),
  wireThick: rule(
    '{found} wire on {wanted} metal.',
    'Wire too thick for the metal needs more current than it stands: burning through is often just that.',
    'wire by thickness',
  ),
  wireThin: rule(
    '{found} wire on {wanted} metal.',
    'It takes many passes or runs at the feeder’s end.',
    'wire by thickness',
  ),
  wrongAlloy: rule('{found} wire on {wanted}.', 'The weld is not of the metal it joins.', 'wire by material'),
  positionSpray: rule(
    'Spray with {found}, welding {wanted}.',
    'The pool runs out; short circuit or pulse stays where it is put.',
    'mode by position',
  ),
} as const satisfies Record<string, RuleText>
export type RuleKey = keyof typeof RULES

export interface Finding {
  rule: RuleKey
  severity: Severity
  /** The kind at fault; `off` for what is off the wire. */
  at: KindKey | 'off'
  found: Datum
  wanted: Datum
  remedy: Remedy
}

export const size = (mm: number): Datum => ({ is: 'size', mm })
export const text = (words: string): Datum => ({ is: 'text', text: words })

export const isWorseFinding = (a: Finding, b: Finding) =>
  SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity)
