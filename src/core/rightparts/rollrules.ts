import { parseWireSize } from '@core/units/wiresize.ts'
import {
  grooveFor,
  isSameSize,
  isSoft,
  ROLL_SETTINGS,
  type Groove,
  type PartFacts,
  type Setup,
  type WireFacts,
} from './facts.ts'
import { size, text, type Datum, type Finding } from './finding.ts'

/** The number read on each roll, outer face; null where nobody has read it. */
export function rollReads(setup: Pick<Setup, 'settings' | 'feeder'>): (number | null)[] {
  const count = setup.feeder?.rollCount ?? 4
  return ROLL_SETTINGS.slice(0, count).map((name) => {
    const read = setup.settings[name]
    const parsed = read ? parseWireSize(`${read} mm`) : null
    return parsed?.ok ? parsed.diameterMm : null
  })
}

/**
 * The groove that runs when a face's number is read: the one under that number, or on feeders marked the other way the one
 * behind it. Null when the number is on neither face.
 */
export function runningGroove(
  grooves: readonly [Groove, Groove],
  readMm: number,
  runsFace: 'read' | 'behind',
): Groove | null {
  const at = grooves.findIndex((g) => isSameSize(g.sizeMm, readMm))
  if (at < 0) return null
  return grooves[runsFace === 'read' ? at : 1 - at] ?? null
}

/** What should be read on the outer face for a wire; null when no groove of the set serves it. */
export function readFor(roll: PartFacts, wire: WireFacts, runsFace: 'read' | 'behind'): number | null {
  const grooves = groovesOf(roll)
  const at = grooves?.findIndex((g) => serves(g, wire)) ?? -1
  if (!grooves || at < 0) return null
  return grooves[runsFace === 'read' ? at : 1 - at]?.sizeMm ?? null
}

const serves = (groove: Groove, wire: WireFacts) =>
  isSameSize(groove.sizeMm, wire.diameterMm) && groove.shape === grooveFor(wire)

export function groovesOf(roll: PartFacts): readonly [Groove, Groove] | null {
  return roll.fit?.grooves ?? null
}

/** Every roll position has the right groove, all the same, and the right number out (P001–P005). */
export function rollRules(setup: Setup): Finding[] {
  const roll = setup.parts['rolls']
  const { wire } = setup
  if (!roll || !wire) return []
  const grooves = groovesOf(roll)
  if (!grooves) return [...plainSize(roll, wire), ...plainReads(wire, setup)]
  const canServe = grooves.some((g) => serves(g, wire))
  if (!canServe) return [noGroove(grooves, wire, setup)]
  const reads = rollReads(setup)
  return [...oddRolls(grooves, reads), ...turnedRolls(grooves, reads, { wire, setup })]
}

/** A set of which only one size is told. */
function plainSize(roll: PartFacts, wire: WireFacts): Finding[] {
  if (roll.sizeMm === null || isSameSize(roll.sizeMm, wire.diameterMm)) return []
  return [
    {
      rule: 'grooveSize',
      severity: 'stops',
      at: 'rolls',
      found: size(roll.sizeMm),
      wanted: size(wire.diameterMm),
      remedy: { do: 'change', kindKey: 'rolls' },
    },
  ]
}

/** Numbers read on a set whose faces nobody has told: the wire's own should be read, unless the feeder runs the groove behind the number. */
function plainReads(wire: WireFacts, setup: Setup): Finding[] {
  if (setup.feeder?.runsFace === 'behind') return []
  const odd = rollReads(setup).find((r) => r !== null && !isSameSize(r, wire.diameterMm))
  if (odd === undefined || odd === null) return []
  return [
    {
      rule: 'grooveSize',
      // Without a feeder nobody knows which face its number stands for.
      severity: setup.feeder ? 'stops' : 'harms',
      at: 'rolls',
      found: size(odd),
      wanted: size(wire.diameterMm),
      remedy: { do: 'change', kindKey: 'rolls' },
    },
  ]
}

const grooveDatum = (g: Groove): Datum => ({ is: 'groove', shape: g.shape, sizeMm: g.sizeMm })

/** Neither face serves the wire: another set, and how bad it is by what is wrong about it. */
function noGroove(grooves: readonly [Groove, Groove], wire: WireFacts, setup: Setup): Finding {
  const runs = setup.feeder?.runsFace ?? 'read'
  const read = rollReads(setup).find((r) => r !== null) ?? null
  const running = (read === null ? null : runningGroove(grooves, read, runs)) ?? closest(grooves, wire)
  const isSized = isSameSize(running.sizeMm, wire.diameterMm)
  const wanted = grooveFor(wire)
  // Teeth chew solid and soft wire, and a sharp V crushes soft wire; a smooth V on cored wire or a U on hard wire feeds, badly.
  const isBad = !isSized || isSoft(wire) || (running.shape === 'knurled V' && wanted !== 'knurled V')
  return {
    rule: isSized ? 'grooveShape' : 'grooveSize',
    severity: isBad ? 'stops' : 'harms',
    at: 'rolls',
    found: grooveDatum(running),
    wanted: isSized ? text(`${wire.construction === 'aluminium' ? 'soft' : wire.construction}`) : size(wire.diameterMm),
    remedy: { do: 'change', kindKey: 'rolls' },
  }
}
const closest = (grooves: readonly [Groove, Groove], wire: WireFacts): Groove =>
  grooves.find((g) => isSameSize(g.sizeMm, wire.diameterMm)) ?? grooves[0]

/** A roll whose number is on neither face of the set is another roll. */
function oddRolls(grooves: readonly [Groove, Groove], reads: readonly (number | null)[]): Finding[] {
  const odd = reads.find((r) => r !== null && !grooves.some((g) => isSameSize(g.sizeMm, r)))
  if (odd === undefined || odd === null) return []
  const [a, b] = grooves
  return [
    {
      rule: 'rollOdd',
      severity: 'stops',
      at: 'rolls',
      found: size(odd),
      wanted: isSameSize(a.sizeMm, b.sizeMm)
        ? size(a.sizeMm)
        : { is: 'sizes', fromMm: Math.min(a.sizeMm, b.sizeMm), toMm: Math.max(a.sizeMm, b.sizeMm) },
      remedy: { do: 'change', kindKey: 'rolls' },
    },
  ]
}

function turnedRolls(
  grooves: readonly [Groove, Groove],
  reads: readonly (number | null)[],
  at: { wire: WireFacts; setup: Setup },
): Finding[] {
  const { wire, setup } = at
  const running = reads.map((r) => (r === null ? null : runningGroove(grooves, r, setup.feeder?.runsFace ?? 'read')))
  const wrong = running.flatMap((g, i) => (g && !serves(g, wire) ? [{ groove: g, roll: i + 1 }] : []))
  const [first] = wrong
  if (!first) return []
  return [
    {
      rule: 'rollTurned',
      severity: 'stops',
      at: 'rolls',
      found: grooveDatum(first.groove),
      wanted: size(wire.diameterMm),
      remedy: { do: 'turn', rolls: wrong.map((w) => w.roll) },
    },
  ]
}
