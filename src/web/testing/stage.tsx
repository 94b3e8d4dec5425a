import { anId } from '@core/testing/ids.ts'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, configure, render } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { type ReactNode } from 'react'
import { MemoryRouter, Route, Routes, useLocation } from 'react-router'
import { vi } from 'vitest'
import { NOTHING_BUILT } from '@core/shop/built.ts'
import { type Me } from '@contract/people.ts'
import { type ShopAnswer } from '@contract/shop.ts'

// What the made-up browser lacks, there before any module of the app asks for it: import this file first.
Object.assign(globalThis, {
  matchMedia: () => ({ matches: false, addEventListener: vi.fn(), removeEventListener: vi.fn() }),
  EventSource: class {
    addEventListener = vi.fn()
    close = vi.fn()
  },
  ResizeObserver: class {
    observe = vi.fn()
    unobserve = vi.fn()
    disconnect = vi.fn()
  },
})
Element.prototype.scrollIntoView = vi.fn()
// What is waited for comes when the machine gets to it: on a busy one a second is no fault.
configure({ asyncUtilTimeout: 8000 })

/** A page in a made-up browser before a made-up server: what was sent is kept, what is answered is given. */
export interface Sent {
  path: string
  body: Record<string, unknown>
}
export type Answers = Record<string, unknown>

export const ME: Me = {
  person: { id: anId('person', 'per_1'), name: 'Oda', role: 'lead' },
  device: null,
  isNew: false,
  isDemo: false,
  hasCells: false,
  hasClasses: false,
  shopName: 'Kettle Lane',
  zone: 'UTC',
  units: 'metric',
  currency: 'EUR',
}
export const PLACES = {
  places: [
    { stationId: 'stn_00a1', name: 'A1', placeWord: 'booth', areaName: 'Bay A', gunName: 'gun A1' },
    { stationId: 'stn_00a2', name: 'A2', placeWord: 'booth', areaName: 'Bay A', gunName: 'gun A2' },
    { stationId: 'stn_00b7', name: 'B7', placeWord: 'cell', areaName: 'Bay B', gunName: 'gun B7' },
  ],
  kinds: [{ key: 'nozzle', name: 'nozzle', column: 'nozzle', words: ['cup', 'shroud'] }],
}

export function shopAnswer(over: Partial<ShopAnswer> = {}): ShopAnswer {
  const kind = (key: 'tip' | 'nozzle' | 'liner', name: string, canClean: boolean) => ({
    key,
    name,
    column: key,
    partClass: 'wear part' as const,
    lifeUnit: key === 'liner' ? ('kg' as const) : ('arcHours' as const),
    canClean,
    changeMin: 2,
    cleanMin: 1,
    confirmDays: 2,
    synonyms: [],
    reasons: ['worn' as const, 'due' as const],
  })
  const station = (id: string, name: string) => ({
    id: anId('station', id),
    name,
    areaId: anId('area', 'area_1'),
    placeWord: 'booth',
    classKey: 'booth',
    walkOrder: 1,
    walkMinutes: 1,
    stopGroup: null,
    except: {},
    gunName: `gun ${name}`,
    headName: `feeder ${name}`,
    positions: ['tip' as const, 'nozzle' as const, 'liner' as const],
    isParked: false,
  })
  return {
    site: { name: 'Kettle Lane', zone: 'UTC', units: 'metric', currency: 'EUR', gasMinorPerM3: null },
    areas: [{ id: anId('area', 'area_1'), name: 'Bay A', built: { ...NOTHING_BUILT, wireId: anId('wire', 'wire_1') } }],
    stations: [station('stn_00a1', 'A1'), station('stn_00a2', 'A2')],
    classes: [
      { key: 'booth', name: 'Booths', labourMinorPerHour: 3800, stopMinorPerHour: 5200, scrapMinorPerPiece: 0 },
    ],
    kinds: [kind('tip', 'contact tip', true), kind('nozzle', 'nozzle', true), kind('liner', 'liner', false)],
    rules: [],
    parts: [
      {
        id: anId('part', 'part_1'),
        code: 'T-10',
        name: 'tip 1.0',
        kindKey: 'tip',
        familyId: null,
        wireSizeMm: 1,
        priceMinor: 64,
        onHand: 12,
        lies: [],
        fit: null,
      },
    ],
    stores: [],
    wires: [
      {
        id: anId('wire', 'wire_1'),
        name: 'solid 1.0',
        construction: 'solid',
        diameterMm: 1,
        densityGPerCm3: 7.85,
        tareKg: null,
        coreMm: null,
        fullMm: null,
        widthMm: null,
        fit: null,
        spoolKg: 15,
      },
    ],
    families: [{ id: anId('family', 'fam_1'), name: 'Kite', fit: null }],
    feederTypes: [],
    procedures: [],
    shifts: [],
    holidays: [],
    people: [{ id: anId('person', 'per_1'), name: 'Oda', role: 'lead', isActive: true, hasPassword: true }],
    devices: [],
    ...over,
  }
}

function Where() {
  const { pathname, search } = useLocation()
  return <output data-testid="where">{pathname + search}</output>
}

/**
 * Renders a piece of the app. `answers` maps "/path" to what the server says, a problem (`{ problem, status }`), or a
 * function of what was sent; anything that was not foreseen is "done".
 */
export function stage(node: ReactNode, answers: Answers = {}, at = '/') {
  const sent: Sent[] = []
  const known: Answers = { '/people/me': ME, '/shop': shopAnswer(), '/find': PLACES, ...answers }
  vi.stubGlobal('fetch', async (url: string, init: RequestInit) => {
    const path = url.replace(/^\/api/, '')
    if (init.method === 'POST')
      sent.push({ path, body: typeof init.body === 'string' ? (JSON.parse(init.body) as Sent['body']) : {} })
    const bare = path.split('?')[0] ?? ''
    // "POST /x" answers writes only, where reading the same path answers something else.
    const found = known[`${init.method ?? 'GET'} ${bare}`] ?? known[path] ?? known[bare] ?? { ok: true }
    const answer: unknown = await (typeof found === 'function'
      ? (found as (s: Sent | undefined) => unknown)(sent.at(-1))
      : found)
    if (answer === 'no link') throw new TypeError('failed to fetch')
    const isProblem = typeof answer === 'object' && answer !== null && 'problem' in answer
    const body = isProblem ? answer.problem : answer
    return new Response(JSON.stringify(body), { status: isProblem ? 409 : 200 })
  })
  const client = new QueryClient({ defaultOptions: { queries: { retry: false }, mutations: { retry: false } } })
  const view = render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[at]}>
        <Routes>
          <Route path="*" element={node} />
          <Route path="/link/:token" element={node} />
          <Route path="/gun/:stationId" element={node} />
        </Routes>
        <Where />
      </MemoryRouter>
    </QueryClientProvider>,
  )
  const user = userEvent.setup()
  return { ...view, sent, user, where: () => view.getByTestId('where').textContent ?? '' }
}
export const unstage = () => {
  cleanup()
  vi.unstubAllGlobals()
}
export const taken = {
  problem: { code: 'name-taken', message: 'There is one with that name already.', details: ['Choose another name.'] },
}

/** What was sent, without the keys that make each write its own; a write without one is a fault. */
export const saidOf = (sent: readonly Sent[]) =>
  sent.map(({ path, body: { key, ...body } }): [string, Record<string, unknown>] => {
    const needsNone = path.startsWith('/ingest/')
    if (!needsNone && !(typeof key === 'string' && key.length >= 8)) throw new Error(`${path} was sent without a key`)
    return [path, body]
  })
