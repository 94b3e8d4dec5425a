import { type FamilyId } from '@core/ids/id.ts'
import { isIn, tipOutFor, type PartFacts, type Setup } from './facts.ts'
import { text, type Finding } from './finding.ts'
import { ratingsOf } from './rating.ts'

/** What is made for one family: what screws together at the front, and liner and O-rings, whose seat, nut and pin are its own. */
const OF_FAMILY = ['neck', 'diffuser', 'clampring', 'insulator', 'tip', 'nozzle', 'liner', 'jump', 'orings'] as const

/** What screws and seats together at the front, where the tip stands, and what the gun may carry. */
export const frontRules = (setup: Setup): Finding[] => [
  ...familyRules(setup),
  ...pinRule(setup),
  ...nozzleRules(setup),
  ...tipPositionRule(setup),
  ...ratingRule(setup),
]

const isOf = (part: PartFacts, familyId: FamilyId) =>
  part.familyId === familyId || (part.fit?.alsoFamilyIds.includes(familyId) ?? false)

/** Parts of one family belong together; a part of which nobody told a family goes with any (P008). */
function familyRules(setup: Setup): Finding[] {
  const own = setup.family
  if (!own) return []
  return OF_FAMILY.flatMap((kindKey): Finding[] => {
    const part = setup.parts[kindKey]
    if (!part || part.familyId === null || isOf(part, own.id)) return []
    return [
      {
        rule: 'otherFamily',
        severity: 'stops',
        at: kindKey,
        found: { is: 'text', text: `family:${part.familyId}` },
        wanted: text(own.name),
        remedy: { do: 'change', kindKey },
      },
    ]
  })
}

function pinRule(setup: Setup): Finding[] {
  const gun = setup.family?.fit?.pin
  const feeder = setup.feeder?.pin
  if (!gun || !feeder || gun.toLowerCase() === feeder.toLowerCase()) return []
  return [
    {
      rule: 'otherPin',
      severity: 'stops',
      at: 'orings',
      found: text(gun),
      wanted: text(feeder),
      remedy: { do: 'ask' },
    },
  ]
}

function nozzleRules(setup: Setup): Finding[] {
  const nozzle = setup.parts['nozzle']
  if (!nozzle?.fit) return []
  const lines: Finding[] = []
  const own = setup.family?.fit?.nozzleStyle
  if (own && nozzle.fit.nozzleStyle && own !== nozzle.fit.nozzleStyle)
    lines.push({
      rule: 'nozzleStyle',
      severity: 'stops',
      at: 'nozzle',
      found: text(nozzle.fit.nozzleStyle),
      wanted: text(own),
      remedy: { do: 'change', kindKey: 'nozzle' },
    })
  return [...lines, ...reamerRules(setup, nozzle.fit.boreMm)]
}

const REAMER_PLAY_MM = 1.5
/** The blade goes into the bore with a little play; the clamp is for that nozzle. */
function reamerRules(setup: Setup, boreMm: number | null): Finding[] {
  if (boreMm === null) return []
  const blade = Number(setup.settings.reamerBlade ?? NaN)
  const clamp = Number(setup.settings.reamerClamp ?? NaN)
  const lines: Finding[] = []
  if (Number.isFinite(blade) && (blade >= boreMm || boreMm - blade > REAMER_PLAY_MM))
    lines.push({
      rule: 'reamerBlade',
      severity: blade >= boreMm ? 'stops' : 'harms',
      at: 'nozzle',
      found: { is: 'depth', mm: blade },
      wanted: { is: 'depth', mm: boreMm },
      remedy: { do: 'ask' },
    })
  if (Number.isFinite(clamp) && Math.abs(clamp - boreMm) > 0.5)
    lines.push({
      rule: 'reamerClamp',
      severity: 'harms',
      at: 'nozzle',
      found: { is: 'depth', mm: clamp },
      wanted: { is: 'depth', mm: boreMm },
      remedy: { do: 'ask' },
    })
  return lines
}

/** Where the tip stands, measured or as the nozzle leaves it, against the window of mode or wire (P025, D09). */
function tipPositionRule(setup: Setup): Finding[] {
  const window = tipOutFor(setup)
  const read = setup.settings.tipOut === undefined ? null : Number(setup.settings.tipOut)
  const nozzle = setup.parts['nozzle']?.fit?.tipOutMm ?? null
  const outMm = read ?? nozzle
  if (!window || outMm === null || !Number.isFinite(outMm) || isIn(outMm, window)) return []
  return [
    {
      rule: 'tipPosition',
      severity: 'harms',
      at: 'tip',
      found: { is: 'depth', mm: outMm },
      wanted: { is: 'depths', fromMm: window[0], toMm: window[1] },
      remedy: read === null ? { do: 'change', kindKey: 'nozzle' } : { do: 'ask' },
    },
  ]
}

/** What may not weld as much of the time as the program wants, each at its place. */
function ratingRule(setup: Setup): Finding[] {
  return ratingsOf(setup)
    .filter((r) => r.may < r.wants)
    .map((r) => ({
      rule: 'rating',
      severity: 'harms',
      at: r.at,
      found: { is: 'share', fraction: r.may },
      wanted: { is: 'amps', amps: r.amps },
      remedy: r.by === 'part' ? { do: 'change', kindKey: r.at } : { do: 'ask' },
    }))
}
