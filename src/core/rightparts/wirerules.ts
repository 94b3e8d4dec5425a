import { type KindKey } from '@core/path/columns.ts'
import {
  alloyOf,
  isAluminium,
  isSameSize,
  isSoft,
  type PartFacts,
  type Setup,
  type Span,
  type WireFacts,
} from './facts.ts'
import { size, text, type Datum, type Finding, type RuleKey, type Severity } from './finding.ts'

/** A tip one step over touches badly; more than this over, it hardly touches. */
const SLOPPY_MM = 0.15
/** What families without a figure of their own allow a plain bore over an aluminium wire. */
const USUAL_ALU_OVER_MM = 0.2

/** Tip, liners and guides: what the wire runs through. */
export function wireRules(setup: Setup): Finding[] {
  const { wire } = setup
  if (!wire) return []
  return [...tipRules(setup, wire), ...linerRules(setup, wire), ...guideRules(setup, wire)]
}

/** Bore equals wire (P007); aluminium wants a bore of its own or a plain one within the family's allowance. */
function tipRules(setup: Setup, wire: WireFacts): Finding[] {
  const tip = setup.parts['tip']
  if (!tip || tip.sizeMm === null) return []
  const found = (rule: RuleKey, severity: Severity): Finding[] => [
    { rule, severity, at: 'tip', found: size(tip.sizeMm ?? 0), wanted: size(wire.diameterMm), remedy: change('tip') },
  ]
  const over = tip.sizeMm - wire.diameterMm
  if (over < 0 && !isSameSize(tip.sizeMm, wire.diameterMm)) return found('tipSmall', 'stops')
  if (isAluminium(wire)) {
    const allowed = setup.family?.fit?.aluBoreOverMm ?? USUAL_ALU_OVER_MM
    if (isSameSize(tip.sizeMm, wire.diameterMm))
      return tip.fit?.isForAluminium === false ? found('tipPlain', 'harms') : []
    return over <= allowed + 0.001 && !tip.fit?.isForAluminium ? [] : found('tipLarge', 'stops')
  }
  if (isSameSize(tip.sizeMm, wire.diameterMm))
    return tip.fit?.isForAluminium ? found('tipWide', 'harms').map((f) => ({ ...f, found: text(alloyOf(wire)) })) : []
  return found('tipLarge', over > SLOPPY_MM ? 'stops' : 'harms')
}

const change = (kindKey: KindKey) => ({ do: 'change', kindKey }) as const

/** The range a part is told for; a bare size stands for that size only. */
function rangeOf(part: PartFacts): Span | null {
  if (part.fit?.wireMm) return part.fit.wireMm
  return part.sizeMm === null ? null : [part.sizeMm, part.sizeMm]
}
const rangeDatum = ([from, to]: Span): Datum =>
  isSameSize(from, to) ? size(from) : { is: 'sizes', fromMm: from, toMm: to }

function linerRules(setup: Setup, wire: WireFacts): Finding[] {
  const lines = (['liner', 'jump'] as const).flatMap((kindKey) => {
    const part = setup.parts[kindKey]
    return part ? [...rangeRule(part, wire, RANGE_RULES.liner), ...linerKindRule(part, wire)] : []
  })
  const liner = setup.parts['liner']
  if (liner) lines.push(...lengthRule(liner, setup), ...jacketRule(liner, setup))
  if (setup.family?.fit?.isNeckQuick && setup.parts['jump'] === undefined)
    lines.push({
      rule: 'jumpMissing',
      severity: 'note',
      at: 'neck',
      found: text(''),
      wanted: text(''),
      remedy: { do: 'ask' },
    })
  return lines
}

const RANGE_RULES = {
  liner: { small: 'linerSmall', large: 'linerLarge' },
  guide: { small: 'guideSmall', large: 'guideLarge' },
} as const

/** Wire over the range does not pass or drags; under it, it passes and snakes (P012). */
function rangeRule(part: PartFacts, wire: WireFacts, rules: { small: RuleKey; large: RuleKey }): Finding[] {
  const range = rangeOf(part)
  if (!range) return []
  const isOver = wire.diameterMm > range[1] && !isSameSize(wire.diameterMm, range[1])
  const isUnder = wire.diameterMm < range[0] && !isSameSize(wire.diameterMm, range[0])
  if (!isOver && !isUnder) return []
  return [
    {
      rule: isOver ? rules.small : rules.large,
      severity: isOver ? 'stops' : 'harms',
      at: part.kindKey,
      found: rangeDatum(range),
      wanted: size(wire.diameterMm),
      remedy: change(part.kindKey),
    },
  ]
}

/** Steel coil for hard wire, polymer or graphite-filled for aluminium and soft wire (P014). */
function linerKindRule(part: PartFacts, wire: WireFacts): Finding[] {
  const kind = part.fit?.linerKind
  if (!kind) return []
  const isSteel = kind === 'steel coil' || kind === 'coated steel coil'
  const line = (rule: RuleKey, severity: Severity): Finding[] => [
    { rule, severity, at: part.kindKey, found: text(kind), wanted: text(alloyOf(wire)), remedy: change(part.kindKey) },
  ]
  if (isSteel && isAluminium(wire)) return line('linerKind', 'stops')
  if (isSteel && isSoft(wire)) return line('linerKind', 'harms')
  return kind === 'polymer' && alloyOf(wire) === 'steel' ? line('linerSoft', 'note') : []
}

function lengthRule(liner: PartFacts, setup: Setup): Finding[] {
  const needM = (setup.cableM ?? 0) + (setup.family?.fit?.neckMm ?? 0) / 1000
  if (setup.cableM === null || !liner.fit?.lengthM || liner.fit.lengthM >= needM - 0.001) return []
  return [
    {
      rule: 'linerShort',
      severity: 'stops',
      at: 'liner',
      found: { is: 'length', m: liner.fit.lengthM },
      wanted: { is: 'length', m: needM },
      remedy: change('liner'),
    },
  ]
}

/** About a foot at the hot end is bare so that plastic cannot melt in the neck (P017). */
function jacketRule(liner: PartFacts, setup: Setup): Finding[] {
  const neckMm = setup.family?.fit?.neckMm
  const bareMm = liner.fit?.bareFrontMm
  if (!liner.fit?.isJacketed || !neckMm || bareMm === null || bareMm === undefined || bareMm >= neckMm) return []
  return [
    {
      rule: 'jacketInNeck',
      severity: 'harms',
      at: 'liner',
      found: { is: 'depth', mm: bareMm },
      wanted: { is: 'depth', mm: neckMm },
      remedy: change('liner'),
    },
  ]
}

function guideRules(setup: Setup, wire: WireFacts): Finding[] {
  return (['inlet', 'outlet'] as const).flatMap((kindKey) => {
    const part = setup.parts[kindKey]
    if (!part) return []
    const lines = rangeRule(part, wire, RANGE_RULES.guide)
    if (isSoft(wire) && part.fit?.material === 'steel')
      lines.push({
        rule: 'guideSteel',
        severity: 'harms',
        at: kindKey,
        found: text('steel'),
        wanted: text(alloyOf(wire)),
        remedy: kindKey === 'outlet' && setup.feeder?.runsLinerToRolls ? { do: 'takeOut', kindKey } : change(kindKey),
      })
    return lines
  })
}
