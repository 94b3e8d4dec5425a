import { anId } from '@core/testing/ids.ts'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { renderToStaticMarkup } from 'react-dom/server'
import { MemoryRouter } from 'react-router'
import { describe, expect, it, vi } from 'vitest'
import { STATES } from '@core/floor/state.ts'
import { gun, line, NOW, position, want, usual } from '@web/testing/samples.ts'
import { lastTitle, payBackLine } from '@web/log/ActStrip.tsx'
import { LogKeys } from '@web/log/LogKeys.tsx'
import { Tape } from '@web/logbook/Tape.tsx'
import { fourKeys, reasonsOn } from './choices.ts'
import { builtLine, GunDesk, spoolSentence } from './GunDesk.tsx'
import { actsFor } from './PartPanel.tsx'
import { gunVerdict, isChange, lifeLines, stateWord } from './verdict.ts'

const HOUR = 3_600_000

describe('the verdict on a gun', () => {
  it('says what to do first and what it rests on', () => {
    const told = gunVerdict(gun({ wants: [want({ used: 6.4 }), want({ position: 'nozzle', act: 'clean' })] }), 'metric')
    expect(told).toEqual({ line: 'Change the tip. Nozzle too.', because: 'Tip 6.4 h on it, house rule 6 h.' })
  })
  it('is quiet when nothing is wanted, and names what comes next with its span', () => {
    const told = gunVerdict(gun({ next: want({ reachedMs: NOW + 7 * HOUR, lateMs: NOW + 9 * HOUR }) }), 'metric')
    expect(told.line).toBe('Nothing wants hands before 09:15.')
    expect(told.because).toBe('Next: tip, about 13:00 (06:00–15:00).')
  })
  it('of a standing gun says where and how long; of a parked one that it is parked', () => {
    expect(gunVerdict(gun({ downSinceMs: NOW - HOUR, downMinutes: 60, downPosition: 'liner' }), 'metric').line).toBe(
      'Down at the liner, 60 min.',
    )
    expect(gunVerdict(gun({ isParked: true }), 'metric').line).toBe('Parked.')
  })
  it('on the first day owns up that nobody has looked', () => {
    expect(
      gunVerdict(gun({ positions: [position({ state: 'notSeen', why: 'nobody has looked' })] }), 'metric').line,
    ).toBe('Nobody has looked at this one.')
  })
})

describe('how long a part lasts', () => {
  it('is told with its source, spread and rule', () => {
    const lines = lifeLines(
      position({
        used: 5,
        usedSd: 0.8,
        isEstimated: true,
        change: want(),
        usual: usual({ low: null, high: null }),
      }),
      gun(),
      'metric',
    )
    expect(lines).toEqual([
      '5 h on it (±0.8 h), estimated.',
      'House rule: change at 6 h, about 07:00 (06:00–09:00).',
      'Half are gone by 5.2 h here (yours, 41).',
      'About 6 in 10 changes get logged, so that reads long.',
      'Last seen 20 h ago.',
    ])
  })
  it('fitted it is corrected already; tells the chance until tomorrow, and what is worth changing along', () => {
    const lines = lifeLines(
      position({ usual: usual({ source: 'trade' }), leave: { chance: 0.3, minutes: 2 }, withIt: ['tip'] }),
      gun(),
      'metric',
    )
    expect(lines.slice(1, 4)).toEqual([
      'Half are gone by 5.2 h here (trade’s guess).',
      '1 in 3 that it goes by this time tomorrow.',
      'While it is off, change too: tip.',
    ])
  })
  it('without usage says only since when, and why it is not seen', () => {
    const lines = lifeLines(position({ used: null, why: 'no clock' }), gun(), 'metric')
    expect(lines).toEqual([
      'On since yesterday 10:00; no usage known.',
      'Not seen: no usage was entered for ten working days.',
    ])
  })
})

describe('the four keys', () => {
  it('are what the gun wants, then what is done on it most, each once', () => {
    const keys = fourKeys(
      gun({
        wants: [want({ position: 'liner' })],
        usualActs: [
          { act: 'cleaned', position: 'nozzle' },
          { act: 'changed', position: 'tip' },
        ],
      }),
    )
    expect(keys.map((k) => `${k.act} ${k.position}`)).toEqual([
      'changed liner',
      'cleaned nozzle',
      'changed tip',
      'newSpool null',
    ])
  })
  it('begin with "all looked at" on a gun nobody has seen', () =>
    expect(fourKeys(gun({ positions: [position({ seenMs: null })] }))[0]).toEqual({ act: 'seen', position: null }))
  it('offer the reasons of the part that came out', () => {
    expect(reasonsOn(gun())('tip')).toEqual(['worn', 'burnedBack', 'due'])
    expect(reasonsOn(gun())('gas')).toContain('worn')
  })
  it('a part offers what can be done to it', () => {
    expect(actsFor(position()).map((a) => a.act)).toEqual(['changed', 'cleaned', 'seen', 'removed'])
    expect(actsFor(position({ position: 'hub', canClean: false, fittedMs: null })).map((a) => a.act)).toEqual([
      'newSpool',
      'changed',
      'seen',
    ])
  })
})

describe('what is told back', () => {
  const logged = {
    eventId: anId('event', 'ev_1'),
    stationId: anId('station', 'stn_1'),
    stationName: 'B7',
    position: 'tip' as const,
    didAmount: 5.8,
    unit: 'arcHours' as const,
    isEstimated: false,
    usualAmount: 5.2,
    usualN: 40,
  }
  const acts = [{ stationId: anId('station', 'stn_1'), act: 'changed' as const, position: 'tip' as const }]
  it('pays the logger back in one line, and is silent about what it does not know', () => {
    expect(payBackLine({ acts, logged: [logged] }, 'metric')).toBe('That one did 5.8 h. Usual here 5.2 h.')
    expect(payBackLine({ acts, logged: [{ ...logged, usualAmount: null }] }, 'metric')).toBe('That one did 5.8 h.')
    expect(payBackLine({ acts, logged: [{ ...logged, didAmount: null }] }, 'metric')).toBe('')
  })
  it('names the act and the gun, or how many guns', () => {
    expect(lastTitle({ acts, logged: [logged] })).toBe('Tip changed · B7')
    expect(lastTitle({ acts, logged: [logged, logged] })).toBe('Tip changed on 2 guns')
  })
  it('the spool says what is left, or asks when it should be empty', () => {
    const spool = (usedKg: number | null) =>
      spoolSentence(gun({ spool: { kg: 15, usedKg, sinceMs: NOW - 48 * HOUR } }), 'metric')
    expect(spool(5)).toBe('Spool: solid 1.0, 2 days on, about 10 kg of 15 kg left.')
    expect(spool(16)).toContain('Was a new one not logged?')
    expect(spool(null)).toBe('Spool: solid 1.0, 2 days on.')
  })
  it('a due nozzle that only wants cleaning is told apart from one to change', () => {
    expect(isChange(position({ change: want({ used: 1, limit: 10 }), clean: want({ used: 5, limit: 4 }) }))).toBe(false)
    expect(isChange(position({ change: want({ used: 11, limit: 10 }), clean: null }))).toBe(true)
  })
  it('of a stop that nobody has placed, the broken wire claims no part', () => {
    const broken = position({ state: 'down' })
    expect(stateWord({ downPosition: null }, broken)).toBe('down, nobody has said where')
    expect(stateWord({ downPosition: 'tip' }, broken)).toBe('down')
  })
})

describe('lines of the log', () => {
  it('that were taken back are struck through, not gone', () => {
    const html = renderToStaticMarkup(
      <MemoryRouter>
        <Tape lines={[line({ standing: 'withdrawn' })]} nowMs={NOW} zone="UTC" units="metric" />
      </MemoryRouter>,
    )
    expect(html).toContain('is-withdrawn')
    expect(html).toContain('taken back')
  })
})

describe('views', () => {
  const show = (what: React.ReactNode) =>
    renderToStaticMarkup(
      <QueryClientProvider client={new QueryClient()}>
        <MemoryRouter>{what}</MemoryRouter>
      </QueryClientProvider>,
    )
  const driver = { state: { step: 'choosing' as const }, tell: vi.fn(), isSending: false, problem: null }
  it('a gun at the desk shows its name, verdict, how it is built and every column', () => {
    const html = show(<GunDesk gun={gun()} units="metric" chosen={null} onChoose={vi.fn()} driver={driver} />)
    for (const text of [
      '<h1>B7</h1>',
      'Nothing wants hands before 09:15.',
      builtLine(gun(), 'metric'),
      'diffuser',
      'aria-label="all good"',
    ])
      expect(html).toContain(text)
  })
  it('a standing gun is inverted and shows what it costs only where a rate is told', () => {
    const standing = gun({ downSinceMs: NOW - HOUR, downMinutes: 60, stopMinorPerHour: 5000 })
    const cells = standing.cells.map((c, i): typeof c => (i === 4 ? [STATES.indexOf('down'), 0, 0, 0] : c))
    const html = show(
      <GunDesk gun={{ ...standing, cells }} units="metric" chosen={null} onChoose={vi.fn()} driver={driver} />,
    )
    expect(html).toContain('gun-head is-down')
    expect(html).toContain('About €50 so far')
    expect(
      show(
        <GunDesk
          gun={{ ...standing, stopMinorPerHour: null }}
          units="metric"
          chosen={null}
          onChoose={vi.fn()}
          driver={driver}
        />,
      ),
    ).not.toContain('€')
  })
  it('a chosen column opens what is on it', () => {
    const html = show(
      <GunDesk
        gun={gun({ positions: [position({ partCode: 'K-T10', partName: 'tip 1.0', onHand: 12 })] })}
        units="metric"
        chosen="tip"
        onChoose={vi.fn()}
        driver={driver}
      />,
    )
    expect(html).toContain('12 on hand')
    expect(html).toContain('looked at: good')
  })
  it('the keys are replaced by the reasons in place', () => {
    const asking = {
      ...driver,
      state: {
        step: 'asking' as const,
        choice: { act: 'changed' as const, position: 'tip' as const },
        sinceMs: 0,
        count: 2,
        isEarlier: false,
      },
    }
    const html = show(<LogKeys driver={asking} choices={[]} reasonsOf={() => ['worn', 'burnedBack']} />)
    expect(html).toContain('Why did the old one come out?')
    expect(html).toContain('Burned back')
    expect(html).toMatch(/aria-pressed="true"[^>]*is-on[^>]*>×2/)
  })
})
