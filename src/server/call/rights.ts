import { type Role } from '@server/db/schema.ts'
import { mustLead, mustOwn, mustRead, type Who } from './context.ts'
import { DomainError } from '@server/problem/problem.ts'

/** Who may ask for something, in words. What a device of one place may write is narrower still: `mustLogAt`, where the place is known. */
export const MAY = {
  /** It tells nothing of the shop, or is how one gets in. */
  anybody: 'For anybody.',
  token: 'For a feeder with its token.',
  here: 'For whoever is signed in, and every device that belongs to the shop (a device of one place writes there only).',
  person: 'For whoever is signed in.',
  /** How the shop is set up, its money, its rules. */
  lead: 'For leads and instructors.',
  /** People and their passwords, whose device is whose, the whole shop as a file. */
  owner: 'For leads alone.',
  machine: 'For this machine itself, and for leads and instructors.',
} as const
export type Right = keyof typeof MAY
export type Route = `${'GET' | 'POST'} /${string}`

/** What each role may ask for, when signed in; a bound device without anybody may `here`. */
export const RIGHTS_OF: Readonly<Record<Role, readonly Right[]>> = {
  lead: ['anybody', 'here', 'person', 'lead', 'owner', 'machine'],
  instructor: ['anybody', 'here', 'person', 'lead', 'machine'],
  hand: ['anybody', 'here', 'person'],
  learner: ['anybody', 'here', 'person'],
}

/** The one table of rights: every route there is, and who may. A route that is missing here cannot be served. */
export const ROUTES: Readonly<Record<Route, Right>> = {
  'GET /live': 'anybody',
  'GET /health': 'anybody',
  'GET /ready': 'anybody',
  'GET /metrics': 'machine',
  'GET /openapi.json': 'anybody',
  'POST /people/sign-in': 'anybody',
  'POST /people/first-lead': 'anybody',
  'POST /people/sign-out': 'anybody',
  'POST /people/bind': 'anybody',
  'POST /people/password': 'person',
  'POST /ingest': 'token',
  'POST /shop/whole': 'anybody',
  'GET /shop/whole.jsonl': 'owner',
  'POST /photo': 'here',
  'POST /ingest/file': 'lead',
  'GET /logbook.csv': 'here',
  'GET /ingest/sheet.csv': 'lead',
  'GET /photo/:file': 'here',
  'GET /print.pdf': 'lead',
  'GET /print/guide.pdf': 'here',
  'GET /print/walk.pdf': 'here',
  'GET /print/symptoms.pdf': 'here',
  'GET /changes': 'here',
  'GET /floor': 'here',
  'GET /rightparts/look': 'here',
  'POST /rightparts/look': 'here',
  'POST /rightparts/set': 'here',
  'POST /rightparts/keep': 'lead',
  'POST /rightparts/tag': 'here',
  'POST /rightparts/joint': 'here',
  'GET /rightparts/joints': 'here',
  'POST /parts/issue': 'here',
  'GET /changeover': 'here',
  'POST /changeover': 'here',
  'POST /changeover/day': 'here',
  'GET /changeover/dedicate': 'lead',
  'GET /guide': 'here',
  'POST /guide/done': 'here',
  'POST /guide/note': 'lead',
  'GET /guide/cautions': 'lead',
  'POST /guide/caution': 'lead',
  'POST /guide/nearmiss': 'here',
  'GET /liner': 'here',
  'POST /liner/stuck': 'here',
  'POST /liner/spoiled': 'here',
  'POST /liner/done': 'here',
  'POST /followup': 'here',
  'GET /reading': 'here',
  'POST /reading': 'here',
  'GET /drag': 'here',
  'POST /drag/calibrate': 'here',
  'GET /down': 'here',
  'GET /down/now': 'here',
  'POST /down/explained': 'here',
  'GET /down/tune': 'here',
  'POST /down/tune': 'here',
  'POST /down/tune/kept': 'here',
  'GET /down/knowledge': 'lead',
  'POST /down/knowledge': 'lead',
  'GET /payback': 'here',
  'GET /payback/helped': 'here',
  'GET /life': 'lead',
  'GET /life/preview': 'lead',
  'GET /life/signs': 'lead',
  'POST /life/rule': 'lead',
  'POST /life/word': 'lead',
  'POST /life/tryout': 'lead',
  'POST /life/tryout/end': 'lead',
  'GET /gun/spares': 'here',
  'POST /gun/swap': 'here',
  'POST /gun/spare': 'lead',
  'POST /gun/status': 'here',
  'GET /gun/:stationId': 'here',
  'GET /find': 'here',
  'GET /logbook': 'here',
  'POST /logbook/scan': 'here',
  'POST /logbook': 'here',
  'POST /logbook/undo': 'here',
  'POST /logbook/correct': 'here',
  'POST /clock/usage': 'here',
  'POST /clock/standing': 'lead',
  'POST /ingest/preview': 'lead',
  'POST /ingest/take': 'lead',
  'POST /ingest/word': 'lead',
  'GET /ingest/progress': 'lead',
  'POST /ingest/cancel': 'lead',
  'GET /shop/holding': 'lead',
  'GET /shop': 'here',
  'POST /shop/places': 'lead',
  'POST /shop/site': 'lead',
  'POST /shop/area': 'lead',
  'POST /shop/station': 'lead',
  'POST /shop/move': 'here',
  'POST /shop/feeder': 'lead',
  'POST /shop/rule': 'lead',
  'GET /shop/helps': 'here',
  'POST /shop/helps-closed': 'lead',
  'POST /shop/limits': 'lead',
  'POST /shop/bay': 'lead',
  'POST /shop/class': 'lead',
  'POST /shop/kind': 'lead',
  'POST /shop/part': 'lead',
  'POST /shop/family': 'lead',
  'POST /shop/feedertype': 'lead',
  'POST /shop/procedure': 'lead',
  'POST /shop/wire': 'lead',
  'POST /shop/shifts': 'lead',
  'GET /parts/supply': 'lead',
  'POST /parts/count': 'lead',
  'POST /parts/received': 'lead',
  'POST /parts/tin': 'lead',
  'GET /houserule': 'here',
  'GET /houserule/ignored': 'lead',
  'POST /houserule': 'lead',
  'GET /photo': 'here',
  'POST /photo/hide': 'here',
  'GET /spools': 'here',
  'POST /spools': 'here',
  'GET /walk': 'here',
  'GET /handover': 'here',
  'GET /audit': 'here',
  'POST /walk/found': 'here',
  'GET /people/me': 'anybody',
  'POST /people/person': 'owner',
  'POST /people/device-link': 'owner',
  'POST /people/device-drop': 'owner',
}

const MUST: Readonly<Record<Right, ((who: Who) => void) | null>> = {
  // Who comes in by these is looked at where they lead to.
  anybody: null,
  token: null,
  machine: null,
  here: mustRead,
  person: mustBePerson,
  lead: mustLead,
  owner: mustOwn,
}

function mustBePerson(who: Who): void {
  if (!who.person) throw new DomainError('not-signed-in', 'Nobody is signed in here.', ['Sign in, then try again.'])
}

/** Looks at who asks before anything else of a request is read; null where a route looks by itself. */
export const doorOf = (route: Route): ((who: Who) => void) | null => {
  const right = ROUTES[route]
  if (right === undefined) throw new Error(`No right is written down for ${route}.`)
  return MUST[right]
}
