// One more date, hour and zone for each run of the tests: a suite that is green on its author's day only is red for a newcomer.
const DAY_MS = 86_400_000

/** Zones whose clocks go forward and back on the last Sundays of March and October. */
const CHANGING = ['Europe/Berlin', 'Europe/Lisbon']
const ZONES = [...CHANGING, 'UTC', 'Asia/Kolkata', 'Pacific/Auckland', 'America/Halifax']

/** Kinds of instants at which software that knows one working morning goes wrong. Wall times are of the zone drawn. */
const KINDS = [
  { words: 'a weekend', day: ({ weekend }) => weekend, hours: [0, 24] },
  { words: 'a night shift', day: ({ any }) => any, hours: [22, 29] },
  { words: 'the day the clocks go forward', zones: CHANGING, day: ({ spring }) => spring, hours: [0, 24] },
  { words: 'the day the clocks go back', zones: CHANGING, day: ({ autumn }) => autumn, hours: [0, 24] },
  { words: 'the turn of a year', day: ({ newYear }) => newYear, hours: [-2, 3] },
  { words: 'the end of February', day: ({ leap }) => leap, hours: [0, 24] },
  { words: 'any working day', day: ({ any }) => any, hours: [5, 18] },
]
/** Mulberry32: the same seed draws the same day on any machine. */
function makeDraw(seed) {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), state | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32
  }
}

const lastSunday = (year, month) => {
  const end = Date.UTC(year, month + 1, 0)
  return end - new Date(end).getUTCDay() * DAY_MS
}
const offsetMs = (zone, atMs) => {
  const wall = new Date(atMs).toLocaleString('sv-SE', { timeZone: zone })
  return Date.parse(`${wall.replace(' ', 'T')}Z`) - Math.floor(atMs / 1000) * 1000
}

/** What is drawn from a seed: an instant, the zone the machine and the shop are in, and both in words. */
export function drawDay(seed) {
  const draw = makeDraw(Number(seed))
  const pick = (list) => list[Math.floor(draw() * list.length)]
  const kind = pick(KINDS)
  const zone = pick(kind.zones ?? ZONES)
  const year = 2026 + Math.floor(draw() * 4)
  const any = Date.UTC(year, 0, 1 + Math.floor(draw() * 365))
  const weekend = any - new Date(any).getUTCDay() * DAY_MS
  const days = {
    any,
    weekend,
    spring: lastSunday(year, 2),
    autumn: lastSunday(year, 9),
    newYear: Date.UTC(year + 1, 0, 1),
    leap: Date.UTC(2028, 1, 29),
  }
  const [from, to] = kind.hours
  const wallMs = kind.day(days) + Math.round((from + draw() * (to - from)) * 60) * 60_000
  const atMs = wallMs - offsetMs(zone, wallMs)
  const wall = new Date(atMs).toLocaleString('sv-SE', { timeZone: zone })
  return { seed, atMs, zone, words: `${kind.words}, ${wall} in ${zone}` }
}
