import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { renderToStaticMarkup } from 'react-dom/server'
import { MemoryRouter } from 'react-router'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import { type FloorAnswer } from '@contract/floor.ts'
import { COLUMNS } from '@core/path/columns.ts'
import { finding } from '@web/testing/samplefindings.ts'
import { choicesFor } from './OpenedRow.tsx'
import { cells, floorGun as gun, floorOf as floor, NOW, want } from '@web/testing/samples.ts'

const HOUR = 3_600_000
let show: (answer: FloorAnswer, over?: Record<string, unknown>) => string

beforeAll(async () => {
  vi.stubGlobal('matchMedia', () => ({ matches: false, addEventListener: vi.fn(), removeEventListener: vi.fn() }))
  vi.stubGlobal('localStorage', { getItem: () => null, setItem: vi.fn() })
  const { FloorView } = await import('./FloorView.tsx')
  show = (answer, over = {}) =>
    renderToStaticMarkup(
      <QueryClientProvider client={new QueryClient()}>
        <MemoryRouter>
          <FloorView
            floor={answer}
            units="metric"
            areaId={null}
            column={null}
            draw={null}
            isLead
            onArea={vi.fn()}
            onColumn={vi.fn()}
            onDraw={vi.fn()}
            {...over}
          />
        </MemoryRouter>
      </QueryClientProvider>,
    )
})

describe('Floor', () => {
  const opened = gun('B7', { rank: 1, minutes: 2, wants: [want()], cells: cells(8, 'due') })
  const down = gun('B3', {
    rank: 0,
    downSinceMs: NOW - HOUR,
    downMinutes: 60,
    downPosition: 'liner',
    cells: cells(5, 'down'),
  })
  it('opens guns that want hands into rows by rank, inverts what stands, and keeps the rest as strands', () => {
    const html = show(floor([gun('A1'), opened, down]))
    expect(html.indexOf('aria-label="B3"')).toBeLessThan(html.indexOf('aria-label="B7"'))
    expect(html).toContain('row-gun is-down')
    expect(html).toContain('A1: all good')
    expect(html).not.toContain('aria-label="A1"')
  })
  it('shows eight rows and names the rest', () => {
    const many = Array.from({ length: 11 }, (_, i) => gun(`G${i}`, { rank: i, wants: [want()] }))
    const html = show(floor(many))
    expect(html.match(/<article/g)).toHaveLength(8)
    expect(html).toMatch(/then .*G8.*G9.*G10/)
  })
  it('offers what a wrong part asks for, once, before what is due', () => {
    const row = gun('T3', { wrong: [finding()], wants: [want({ position: 'tip' }), want({ position: 'nozzle' })] })
    expect(choicesFor(row).map((c) => `${c.act} ${c.position}`)).toEqual(['changed tip', 'changed nozzle', 'down null'])
    expect(choicesFor(gun('T3', { wrong: [finding({ put: null })] })).map((c) => c.act)).toEqual(['down'])
  })
  it('a gun that is opened leaves a notch at its place; a parked one leaves nothing', () => {
    expect(show(floor([opened]))).toContain('class="notch"')
    expect(show(floor([gun('P', { isParked: true })]))).toContain('P: parked')
  })
  it('empty, asks how many there are, or says whose business it is', () => {
    expect(show(floor([]))).toContain('Say how many there are')
    expect(show(floor([]), { isLead: false })).toContain('The lead sets them up')
  })
  it('drawn down, offers the acts of that column', () => {
    const html = show(floor([gun('A1'), gun('A2')]), {
      draw: { column: 'nozzle', stationIds: ['stn_00a1', 'stn_00a2'] },
    })
    expect(html).toContain('2 guns, nozzle')
    expect(html).toContain('Nozzle cleaned')
  })
  it('by column lists use against the limit', () => {
    const html = show(floor([gun('A1', { columnWant: want({ used: 3 }) })]), { column: 'tip' })
    expect(html).toContain('tip, by life left')
    expect(html).toContain('3 h on it, house rule 6 h')
  })
  it('of a part not seen tells only the rule: what was counted of it means nothing', () => {
    const unseen = gun('T1', { columnWant: want({ used: 0 }), cells: cells(COLUMNS.indexOf('tip'), 'notSeen') })
    expect(show(floor([unseen]), { column: 'tip' })).toContain('not seen, house rule 6 h<')
  })
})
