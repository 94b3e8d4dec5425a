import { parseWireSize } from '@core/units/wiresize.ts'
import { chanceFinishes, piecesOf, type JobJoint } from '@core/spools/jobwire.ts'
import { kgToLb } from '@core/units/convert.ts'
import { readQuantity } from '@core/units/quantity.ts'
import { type JobGiven, type JobLine, type JobsAnswer, type JobSpool } from '@contract/jobs.ts'
import { ruleLength } from '@web/format/lengths.ts'
import { twoFigures, type Units } from '@web/format/numbers.ts'
import { countWord, listed } from '@web/format/words.ts'
import { weight } from './spoolwords.ts'
import { type Planned, type WireGroup } from './usePlan.ts'

const bare = (kg: number, units: Units) => twoFigures(units === 'us' ? kgToLb(kg) : kg)

/** What the page says first. */
export function jobsSentence(at: JobsAnswer, planned: Planned, units: Units): string {
  if (at.jobs.length === 0) return 'No job waits for wire. Say one below: its joint, how long, how many.'
  const kg = at.jobs.reduce((sum, j) => sum + j.kg, 0)
  const sd = Math.hypot(...at.jobs.map((j) => j.sdKg))
  const want = `${countWord(at.jobs.length)} ${at.jobs.length === 1 ? 'job wants' : 'jobs want'} ${weight(kg, units)} (${bare(Math.max(0, kg - 1.645 * sd), units)}–${bare(kg + 1.645 * sd, units)})`
  if (!planned.plans) return `${want}. Which spool for which …`
  const unserved = planned.groups.flatMap((g, i) => g.jobs.filter((_, j) => planned.plans?.[i]?.spoolOf[j] == null))
  const scrap = planned.plans.reduce((sum, p) => sum + p.scrap, 0) / 1000
  const left =
    scrap > 0
      ? ` ${weight(scrap, units)} stay on spools that are too short for anything.`
      : ' Nothing too short is left over.'
  if (unserved.length === 0) return `${want}; a spool for each that finishes it 9 times in 10.${left}`
  return `${want}; no spool finishes ${listed(unserved.slice(0, 3).map((j) => j.name))}${unserved.length > 3 ? ' …' : ''}.${left}`
}

/** What a spool does for the jobs on it. */
export function spoolWords(spool: JobSpool, jobs: readonly JobLine[], units: Units): string {
  const there = `${weight(spool.kg, units)}${spool.isFull ? ', not begun' : ''}`
  if (jobs.length === 0) return there
  const chance = chanceFinishes(spool, jobs)
  const rest = spool.kg - jobs.reduce((sum, j) => sum + j.kg, 0)
  const left =
    rest <= 0
      ? ''
      : rest < spool.leastUsableKg
        ? `; about ${weight(rest, units)} stay, too short for most`
        : `; about ${weight(rest, units)} stay`
  return `${there}; finishes ${times(chance)}${left}`
}
const times = (chance: number): string =>
  chance > 0.985
    ? 'practically always'
    : chance < 0.02
      ? 'hardly ever'
      : `${Math.max(1, Math.min(98, Math.round(chance * 100)))} times in 100`

/** A job that no spool finishes: between which pieces it is changed, longest spools first. */
export function changesOf(job: JobLine, { spools }: WireGroup, fullKg: number): string {
  let left = job.pieces
  const at: string[] = []
  for (const spool of [...spools].sort((a, b) => b.kg - a.kg)) {
    if (left <= 0) break
    const n = Math.min(left, piecesOf(spool, job))
    if (n === 0) continue
    at.push(`${n} from ${spool.name}`)
    left -= n
  }
  if (left > 0) {
    const each = job.kg / job.pieces
    const more = Math.ceil((left * each * 1.1) / fullKg)
    at.push(`${left} from ${more === 1 ? 'a new spool' : `${more} new spools`}`)
  }
  // Nothing is changed where one spool, a new one, does all of it.
  if (at.length === 1 && job.kg * 1.1 <= fullKg) return 'A new spool finishes it.'
  return job.pieces === 1
    ? 'One piece needs more than any spool holds: plan a stop where the weld may be joined, or a drum.'
    : `Change between pieces, never within one: ${listed(at)}.`
}

export function jointWords(joint: JobJoint, units: Units): string {
  if (joint.kind === 'fillet') return `fillet ${ruleLength(joint.legMm, units)}`
  if (joint.kind === 'section') return `${twoFigures(joint.mm2)} mm²`
  return `V ${joint.angleDeg}° on ${ruleLength(joint.thicknessMm, units)}, gap ${ruleLength(joint.gapMm, units)}`
}

/** A throat is the leg over √2. */
const LEG_OF_THROAT = Math.SQRT2
/** "fillet 6", "a4", "1/4 fillet", "V 60 on 10 gap 2", "33 mm2". */
export function readJoint(text: string, units: Units): { ok: true; joint: JobJoint } | { ok: false; why: string } {
  const length = (t: string) => readQuantity(t.trim(), { of: 'rule', units, above: 0 })
  const plain = text.trim().toLowerCase()
  const throat = /^a\s?([\d.,/ ]+(?:mm|in|")?)$/.exec(plain)
  const fillet = /^(?:fillet\s+(.+)|(.+?)\s+fillet|z\s?([\d.,/ ]+(?:mm|in|")?))$/.exec(plain)
  const vee = /^v\s*(\d+)\s*°?\s*on\s+(.+?)(?:[, ]+gap\s+(.+))?$/.exec(plain)
  const section = /^([\d.,]+)\s*mm(?:2|²)$/.exec(plain)
  const leg = throat?.[1] ?? fillet?.[1] ?? fillet?.[2] ?? fillet?.[3]
  if (leg) {
    const read = length(leg)
    if (!read.ok || read.value === null) return { ok: false, why: read.ok ? NO_JOINT(text) : read.why }
    return { ok: true, joint: { kind: 'fillet', legMm: read.value * (throat ? LEG_OF_THROAT : 1) } }
  }
  if (vee) {
    const [thick, gap] = [
      length(vee[2] ?? ''),
      vee[3] === undefined ? null : readQuantity(vee[3], { of: 'rule', units, from: 0 }),
    ]
    const angleDeg = Number(vee[1])
    if (!thick.ok || thick.value === null || angleDeg > 150)
      return { ok: false, why: thick.ok ? NO_JOINT(text) : thick.why }
    if (gap && !gap.ok) return { ok: false, why: gap.why }
    return {
      ok: true,
      joint: { kind: 'vee', thicknessMm: thick.value, angleDeg, gapMm: (gap?.ok ? gap.value : null) ?? 0 },
    }
  }
  if (section) {
    const mm2 = Number((section[1] ?? '').replace(',', '.'))
    if (mm2 > 0) return { ok: true, joint: { kind: 'section', mm2 } }
  }
  return { ok: false, why: NO_JOINT(text) }
}
const NO_JOINT = (text: string) => `“${text.trim()}” is no joint: write fillet 6, a4, V 60 on 10 gap 2, or 33 mm².`

interface Wires {
  wires: JobsAnswer['wires']
  units: Units
}
/** The wire that is meant: its name, or its size where only one has it. */
export function wireNamed(text: string, { wires }: Wires): JobsAnswer['wires'][number] | null {
  const plain = text.trim().toLowerCase()
  const named = wires.find((w) => w.name.toLowerCase() === plain)
  if (named) return named
  const size = parseWireSize(plain)
  const sized = size.ok ? wires.filter((w) => Math.abs(w.diameterMm - size.diameterMm) < 0.015) : []
  return sized.length === 1 ? (sized[0] ?? null) : null
}

export interface PastedJobs {
  jobs: JobGiven[]
  bad: { row: number; why: string }[]
}
/** Lines as they stand in a mail or a sheet: "ramp hinges; fillet 6; 0.8 m; 40; solid 1.2", by semicolons or tabs. */
export function readJobs(text: string, at: Wires): PastedJobs {
  const [jobs, bad]: [JobGiven[], PastedJobs['bad']] = [[], []]
  text.split(/\r?\n/).forEach((line, i) => {
    if (line.trim() === '') return
    const [name = '', joint = '', length = '', pieces = '', wire = ''] = line.split(/[;\t]/).map((t) => t.trim())
    const whyNot = (why: string) => void bad.push({ row: i + 1, why })
    const read = readJoint(joint, at.units)
    if (name === '') return whyNot('a job wants a name.')
    if (!read.ok) return whyNot(read.why)
    const metres = readQuantity(length, { of: 'cable', units: at.units, above: 0 })
    if (!metres.ok || metres.value === null)
      return whyNot(`how long on one piece? ${metres.ok ? 'Write 0.8 m.' : metres.why}`)
    const n = readQuantity(pieces === '' ? '1' : pieces, { of: 'count', from: 1 })
    if (!n.ok || n.value === null) return whyNot(`how many pieces? ${n.ok ? '' : n.why}`)
    const found = wire === '' && at.wires.length === 1 ? at.wires[0] : wireNamed(wire, at)
    if (!found) return whyNot(`which wire is “${wire}”? One of ${at.wires.map((w) => w.name).join(', ')}.`)
    jobs.push({
      name,
      wireId: found.id,
      joint: read.joint,
      lengthM: metres.value,
      pieces: n.value,
      starts: 1,
      mode: null,
    })
  })
  return { jobs, bad }
}

/** Wires of this shop that suit a thickness; a guess of the trade. */
export function suitedWords(thicknessMm: number | null, { wires, units }: Wires): string {
  if (thicknessMm === null) return ''
  const fit = wires.filter((w) => w.suitsMm && w.suitsMm[0] <= thicknessMm && thicknessMm <= w.suitsMm[1])
  const metal = ruleLength(thicknessMm, units)
  return fit.length === 0
    ? `No wire of yours is usual for ${metal}.`
    : `For ${metal} the trade takes ${listed(fit.map((w) => w.name))}: thinner for thin edges and a smoother face, thicker where it is flat and much.`
}
