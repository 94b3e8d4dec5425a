import { afterEach, describe, expect, it } from 'vitest'
import { anId } from '@core/testing/ids.ts'
import { type JobLine, type JobsAnswer, type JobSpool } from '@contract/jobs.ts'
import { ME, saidOf, stage, unstage } from '@web/testing/stage.tsx'
import { JobsPage } from './JobsPage.tsx'
import {
  changesOf,
  jobsSentence,
  jointWords,
  readJobs,
  readJoint,
  spoolWords,
  suitedWords,
  wireNamed,
} from './jobwords.ts'
import { askOf, groupsOf } from './usePlan.ts'

afterEach(unstage)
const wireId = anId('wire', 'wire_1')
const job = (over: Partial<JobLine> = {}): JobLine => ({
  ...{ jobId: anId('job', 'job_1'), name: 'hinges', wireId, wireName: 'solid 1.2', lengthM: 0.8, pieces: 20 },
  ...{ joint: { kind: 'fillet', legMm: 6 }, kg: 2.5, sdKg: 0.3, onId: null },
  ...over,
})
const spool = (over: Partial<JobSpool> = {}): JobSpool => ({
  ...{ id: 'spool_1', name: 'spool 1', wireId, kg: 15, sdKg: 0.15, fullKg: 15, leastUsableKg: 2.25 },
  ...{ isFull: true, at: null },
  ...over,
})
const short = spool({ id: 'spool_3', name: 'spool 3', kg: 3.2, sdKg: 0.05, isFull: false })
const at = (over: Partial<JobsAnswer> = {}): JobsAnswer => ({
  ...{ nowMs: 0, jobs: [job()], spools: [spool(), short], learnt: null },
  wires: [
    {
      ...{ id: wireId, name: 'solid 1.2', diameterMm: 1.2, spoolKg: 15, metresPerKg: 112 },
      ...{ pricePerKgMinor: null, suitsMm: [2, 25] },
    },
  ],
  ...over,
})
const show = (jobs = at(), more = {}) => stage(<JobsPage />, { '/spools/jobs': jobs, ...more }, '/jobs')

describe('wire for jobs', () => {
  it('stands proposed: the short end for the short job; laid with one key', async () => {
    const small = at({ jobs: [job({ kg: 1, sdKg: 0.1 })], spools: [spool(), { ...short, kg: 2 }] })
    const { user, findByRole, getByText, getByRole, sent } = show(small)
    await findByRole('heading', {
      name: /^One job wants 1 kg \(0.84–1.2\); a spool for each that finishes it 9 times in 10/,
    })
    getByText('proposed: spool 3.')
    await user.click(getByRole('button', { name: 'Lay them as proposed' }))
    expect(saidOf(sent)).toEqual([['/spools/jobs/lay', { laid: [{ jobId: 'job_1', onId: 'spool_3' }] }]])
  })
  it('laid by a pick, taken off again, told what it finishes', async () => {
    const { user, findByLabelText, getByText, sent } = show(at({ jobs: [job({ onId: 'spool_1' })] }))
    await user.selectOptions(await findByLabelText('hinges: from which spool'), '')
    getByText('15 kg, not begun; finishes practically always; about 13 kg stay')
    expect(saidOf(sent)).toEqual([['/spools/jobs/lay', { laid: [{ jobId: 'job_1', onId: null }] }]])
  })
  it('welded, with what it took or without; a weight that is none is said', async () => {
    const { user, findByRole, getByLabelText, getByRole, getByText, sent } = show()
    await user.click(await findByRole('button', { name: 'welded' }))
    await user.type(getByLabelText(/hinges: wire it took/), 'lots')
    expect((getByRole('button', { name: 'Welded' }) as HTMLButtonElement).disabled).toBe(true)
    getByText(/lots/)
    await user.clear(getByLabelText(/hinges: wire it took/))
    await user.type(getByLabelText(/hinges: wire it took/), '2,8')
    await user.click(getByRole('button', { name: 'Welded' }))
    expect(saidOf(sent)).toEqual([['/spools/jobs/done', { jobId: 'job_1', usedKg: 2.8 }]])
  })
  it('one typed; a joint that is none is said beside its field', async () => {
    const { user, findByLabelText, getByLabelText, getByRole, findByText, sent } = show(at({ jobs: [] }))
    await user.type(await findByLabelText('what'), 'lugs')
    await user.type(getByLabelText('joint'), 'round')
    await user.type(getByLabelText(/weld on a piece/), '60 cm')
    await user.click(getByRole('button', { name: 'Reckon it' }))
    await findByText(/“round” is no joint: write fillet 6/)
    await user.clear(getByLabelText('joint'))
    await user.type(getByLabelText('joint'), 'a4')
    await user.type(getByLabelText(/thinnest plate/), '8')
    await findByText(/For 8 mm the trade takes solid 1.2/)
    await user.click(getByRole('button', { name: 'Reckon it' }))
    const [, body] = saidOf(sent)[0] ?? ['', {}]
    expect(body).toMatchObject({ jobs: [{ name: 'lugs', wireId: 'wire_1', lengthM: 0.6, pieces: 1, mode: null }] })
  })
  it('a list pasted: lines that can’t be read are named, and nothing goes until they can', async () => {
    const { user, findByRole, getByLabelText, getByRole, getByText, sent } = show()
    await user.click(await findByRole('button', { name: 'paste a list' }))
    const box = getByLabelText('Jobs, one a line')
    await user.click(box)
    await user.paste('hinges; fillet 6; 0.8 m; 40\nlugs; square; 1 m; 2')
    getByText(/Line 2: “square” is no joint/)
    expect((getByRole('button', { name: 'Reckon 1' }) as HTMLButtonElement).disabled).toBe(true)
    await user.clear(box)
    await user.paste('hinges; fillet 6; 0.8 m; 40\nlugs; a4; 1 m; 2; solid 1.2')
    await user.click(getByRole('button', { name: 'Reckon 2' }))
    expect(saidOf(sent)[0]?.[1]).toMatchObject({ jobs: [{ name: 'hinges' }, { name: 'lugs', pieces: 2 }] })
  })
  it('a hand sees it and lays nothing', async () => {
    const me = { ...ME, person: { id: anId('person', 'per_3'), name: 'Bo', role: 'hand' as const } }
    const { findByText, queryByRole, queryByLabelText } = show(at(), { '/people/me': me })
    await findByText('hinges')
    expect(queryByRole('button', { name: 'Lay them as proposed' })).toBeNull()
    expect(queryByLabelText('what')).toBeNull()
  })
})

describe('in words', () => {
  const [group] = groupsOf(at())
  const none = { groups: groupsOf(at()), plans: null, progress: 0 }
  it('what the jobs want, while it is looked for, and what no spool finishes', () => {
    expect(jobsSentence(at({ jobs: [] }), none, 'metric')).toContain('No job waits for wire')
    expect(jobsSentence(at(), none, 'metric')).toContain('Which spool for which …')
    const plan = { spoolOf: [null], jobs: 0, scrap: 1200, spools: 0, opened: 0, isExact: true }
    const said = jobsSentence(at(), { ...none, plans: [plan] }, 'us')
    expect(said).toContain('no spool finishes hinges.')
    expect(said).toContain('2.6 lb stay on spools that are too short for anything.')
  })
  it('where none finishes it is changed between pieces; one piece asks for another way', () => {
    const big = job({ kg: 20, sdKg: 1 })
    expect(group && changesOf(big, group, 15)).toMatch(
      /^Change between pieces, never within one: \d+ from spool 1, \d+ from spool 3/,
    )
    expect(group && changesOf({ ...big, pieces: 1 }, group, 15)).toContain('plan a stop')
  })
  it('where a new spool does all of it nothing is changed', () => {
    expect(group && changesOf(job(), { ...group, spools: [] }, 15)).toBe('A new spool finishes it.')
  })
  it('what stays on a spool, and what is too short', () => {
    const words = spoolWords(short, [job()], 'metric')
    expect(words).toBe('3.2 kg; finishes practically always; about 0.7 kg stay, too short for most')
    expect(spoolWords(short, [], 'us')).toBe('7.1 lb')
  })
  it('is asked in whole grams, with something to spare; a short end loses nothing more', () => {
    const end = spool({ id: 'spool_9', kg: 1, sdKg: 0, isFull: false })
    const [ask] = askOf(groupsOf(at({ spools: [spool(), end] })))
    expect(ask?.spools.map((s) => [s.left, s.leastUsable])).toEqual([
      [1000, 0],
      [14_807, 2250],
    ])
    expect(ask?.jobs).toEqual([Math.ceil(1000 * (2.5 + 0.3 * 1.2815515655446004))])
  })
  it.each([
    ['fillet 6', 'metric', { kind: 'fillet', legMm: 6 }],
    ['z8', 'metric', { kind: 'fillet', legMm: 8 }],
    ['1/4 fillet', 'us', { kind: 'fillet', legMm: 6.35 }],
    ['V 60 on 10 gap 2', 'metric', { kind: 'vee', thicknessMm: 10, angleDeg: 60, gapMm: 2 }],
    ['v 90° on 12', 'metric', { kind: 'vee', thicknessMm: 12, angleDeg: 90, gapMm: 0 }],
    ['33 mm²', 'metric', { kind: 'section', mm2: 33 }],
  ] as const)('reads the joint %j', (text, units, joint) => {
    expect(readJoint(text, units)).toEqual({ ok: true, joint })
  })
  it('a throat is its leg over √2; what is no joint, no length, no angle is said', () => {
    const a4 = readJoint('a4', 'metric')
    expect(a4.ok && a4.joint.kind === 'fillet' ? a4.joint.legMm : 0).toBeCloseTo(5.657, 3)
    for (const wrong of ['', 'fillet', 'fillet x', 'V 200 on 10', '0 mm2'])
      expect(readJoint(wrong, 'metric').ok).toBe(false)
    expect(jointWords({ kind: 'vee', thicknessMm: 10, angleDeg: 60, gapMm: 2 }, 'metric')).toContain('V 60° on 10 mm')
    expect(jointWords({ kind: 'section', mm2: 33 }, 'metric')).toBe('33 mm²')
  })
  it('a line of a list is told by what is missing in it', () => {
    const why = (line: string) => readJobs(line, { ...at(), units: 'metric' }).bad[0]?.why ?? ''
    expect(why('; fillet 6; 1 m; 2')).toContain('a name')
    expect(why('lugs; fillet 6; ; 2')).toContain('how long on one piece?')
    expect(why('lugs; fillet 6; 1 m; half')).toContain('how many pieces?')
    expect(why('lugs; fillet 6; 1 m; 2; copper 3')).toContain('which wire is “copper 3”?')
    expect(readJobs('\n\n', { ...at(), units: 'metric' })).toEqual({ jobs: [], bad: [] })
  })
  it('a wire by its name or its size alone', () => {
    expect(wireNamed('Solid 1.2', { ...at(), units: 'metric' })?.id).toBe('wire_1')
    expect(wireNamed('.047', { ...at(), units: 'us' })?.id ?? wireNamed('1.2', { ...at(), units: 'us' })?.id).toBe(
      'wire_1',
    )
    expect(wireNamed('0.8', { ...at(), units: 'metric' })).toBeNull()
    expect(suitedWords(60, { ...at(), units: 'metric' })).toContain('No wire of yours is usual for 60')
    expect(suitedWords(null, { ...at(), units: 'metric' })).toBe('')
  })
})
