import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { played, type DrillAct, type Scenario } from '@core/practice/drill.ts'
import { debriefOf } from '@core/practice/debrief.ts'
import { USUAL_BOOTHS } from '@core/practice/setups.ts'
import { DRILL_FORMAT } from '@contract/practice.ts'
import { beadWords } from './BeadShown.tsx'
import { readDrills } from './FromFile.tsx'
import { keepDrill, keepPlayed, readDrill, readPlayed } from './kept.ts'
import { TrimDrill } from './HandsWork.tsx'
import { PlacePanel } from './PlacePanel.tsx'
import { actWords, cameWords, meterWords, partsWords, scoreWords, worthWords } from './practicewords.ts'
import { indexed } from './queries.ts'

const knowledge = indexed(undefined)
const scenario: Scenario = {
  ...{ version: 1, name: null, setup: USUAL_BOOTHS[0]!, faults: [{ key: 'nozzleClogged', bad: 0.9 }] },
  ...{ complaint: 'porosity', seed: 4 },
}
beforeEach(() => localStorage.clear())
afterEach(cleanup)

describe('words of a drill', () => {
  it('tell what was done, what came of it, and what it was worth', () => {
    const acts: DrillAct[] = [
      { do: 'look', key: 'metal' },
      { do: 'fix', key: 'changed liner', way: 'new' },
      { do: 'bead' },
    ]
    const { worth } = debriefOf(knowledge, scenario, acts)
    expect(worth.map((w) => [actWords(knowledge, w.step.act), cameWords(w.step)])).toEqual([
      ['Look at the metal', 'Clean, fits'],
      ['New liner, then set the tension again', 'Still there'],
      ['Pulled the trigger once more', 'The same'],
    ])
    expect(worthWords(worth[1]!)).toMatch(/told nothing new; about \d+ min too many/)
    const slip = played(knowledge, scenario, [{ do: 'fix', key: 'cleaned nozzle', way: 'twist' }]).steps[0]!
    expect(cameWords(slip)).toContain('loose over the gas holes')
  })
  it('hold the minutes against the best order', () => {
    expect(scoreWords({ minutes: 33, bestMin: 2.3, parts: 1 })).toBe(
      'Found in 33 min and a part. In the best order it takes 2 min.',
    )
    expect(scoreWords({ minutes: 2.3, bestMin: 2.3, parts: 0 })).toBe('Found in 2 min. Nobody does it faster.')
    expect(partsWords(['tip', 'liner'])).toBe('tip, liner')
    expect(partsWords([])).toBe('no parts')
  })
  it('read meters in the shop’s units', () => {
    const gas = { what: 'gasLpm' as const, value: 4.2, usual: 14 }
    expect(meterWords(gas, 'metric')).toContain('L/min')
    expect(meterWords(gas, 'us')).toContain('ft³/h')
    expect(meterWords({ what: 'speedMmS', value: 150, usual: 100 }, 'us')).toContain('in/min')
  })
  it('say a bead for who cannot see it', () => {
    const slice = { x: 1, half: 3, off: 0 }
    const even = { slices: [slice, slice], holes: [], spatter: [], soot: 0, ripples: true }
    expect(beadWords(even)).toBe('An even bead.')
    expect(beadWords({ ...even, soot: 0.8, slices: [slice, { ...slice, half: 0 }] })).toBe('A bead: broken off, sooty.')
    expect(beadWords({ ...even, slices: [{ ...slice, half: 0 }] })).toBe('Nothing was laid.')
  })
})

describe('what is kept on the device', () => {
  it('goes on with a drill as it was, and with none where an older version wrote it', () => {
    const drill = { scenario, acts: [{ do: 'look' as const, key: 'flow' }], setId: null, key: 'k1' }
    keepDrill(drill)
    expect(readDrill()).toEqual(drill)
    keepDrill({ ...drill, acts: [] })
    expect(readDrill()?.acts).toEqual([])
    localStorage.setItem('idle-drill', '{"scenario":{"version":0}}')
    expect(readDrill()).toBeNull()
    localStorage.setItem('idle-drill', 'not json')
    expect(readDrill()).toBeNull()
  })
  it('counts a drill once, whatever was wrong that this version knows', () => {
    const one = { faults: ['gunOut' as const], minutes: 4, bestMin: 3, key: 'a' }
    keepPlayed(one)
    keepPlayed({ ...one, minutes: 5 })
    expect(readPlayed()).toEqual([{ ...one, minutes: 5 }])
    localStorage.setItem('idle-drills-played', JSON.stringify([{ ...one, faults: ['gunOut', 'goneSince'] }]))
    expect(readPlayed()[0]?.faults).toEqual(['gunOut'])
  })
})

describe('a drill from a file', () => {
  const file = (scenarios: unknown[]) => JSON.stringify({ format: DRILL_FORMAT, scenarios })
  it('is read, or refused with where it is wrong', () => {
    expect(readDrills(file([scenario]))).toEqual({ ok: true, scenarios: [scenario] })
    expect(readDrills('<html>')).toMatchObject({ ok: false, why: expect.stringContaining('not JSON') })
    expect(readDrills('{"format":"other"}')).toMatchObject({ ok: false })
    const bad = readDrills(file([{ ...scenario, faults: [{ key: 'gremlins', bad: 1 }] }]))
    expect(bad).toMatchObject({ ok: false, why: expect.stringContaining('scenarios › 0 › faults › 0 › key') })
    expect(readDrills(file([{ ...scenario, seed: 1e12 }]))).toMatchObject({ ok: false })
  })
})

describe('a liner to trim', () => {
  it.each(['metric', 'us'] as const)('%s: no two cuts read alike', (units) => {
    render(<TrimDrill seed={3} units={units} onAgain={() => undefined} />)
    const cuts = screen.getAllByRole('button', { name: /^Cut / }).map((k) => k.textContent)
    expect(new Set(cuts).size).toBe(cuts.length)
  })
})

describe('a place of the booth', () => {
  const panel = (acts: DrillAct[], onAct: (act: DrillAct) => void) =>
    render(
      <PlacePanel
        {...{ knowledge, scenario, onAct, place: 'front', units: 'metric' }}
        state={played(knowledge, scenario, acts)}
        ask={() => Promise.resolve([] as never)}
      />,
    )
  it('offers its looks with their minutes, and shows what was seen in place of the key', async () => {
    const did: DrillAct[] = []
    const { unmount } = panel([], (a) => did.push(a))
    await userEvent.click(screen.getByRole('button', { name: /^Look into the nozzle/ }))
    expect(did).toEqual([{ do: 'look', key: 'nozzleLook' }])
    unmount()
    panel([{ do: 'look', key: 'nozzleLook' }], () => undefined)
    expect(screen.queryByRole('button', { name: /^Look into the nozzle/ })).toBeNull()
    expect(screen.getByText('A good part is closed')).toBeTruthy()
  })
  it('asks how, where doing it wrong has a consequence, with the cautions of the work', async () => {
    const did: DrillAct[] = []
    panel([], (a) => did.push(a))
    await userEvent.click(screen.getByRole('button', { name: /^Clean the nozzle/ }))
    expect(screen.getByRole('heading', { name: 'How does the nozzle come off?' })).toBeTruthy()
    expect(screen.getByText(/hot/i)).toBeTruthy()
    await userEvent.click(screen.getByRole('button', { name: /^Twist it off/ }))
    expect(did).toEqual([{ do: 'fix', key: 'cleaned nozzle', way: 'twist' }])
  })
  it('shows what the complaint lists first, and the rest on demand', async () => {
    panel([], () => undefined)
    const before = screen.getByRole('group', { name: 'Put right' }).children.length
    await userEvent.click(screen.getByRole('button', { name: /more$/ }))
    expect(screen.getByRole('group', { name: 'Put right' }).children.length).toBeGreaterThan(before)
  })
})
