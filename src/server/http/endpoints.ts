import { telemetryAnswer, telemetryMessage } from '@contract/telemetry.ts'
import { buyingEndpoints } from '@server/buying/endpoints.ts'
import { cellEndpoints } from '@server/cell/endpoints.ts'
import { classEndpoints } from '@server/classes/endpoints.ts'
import { practiceEndpoints } from '@server/practice/endpoints.ts'
import { changeoverEndpoints } from '@server/changeover/endpoints.ts'
import { clockEndpoints } from '@server/clock/endpoints.ts'
import { downEndpoints } from '@server/down/endpoints.ts'
import { dragEndpoints } from '@server/drag/endpoints.ts'
import { readingEndpoints } from '@server/reading/endpoints.ts'
import { floorEndpoints } from '@server/floor/endpoints.ts'
import { followupEndpoints } from '@server/followup/endpoints.ts'
import { guideEndpoints } from '@server/guide/endpoints.ts'
import { linerEndpoints } from '@server/liner/endpoints.ts'
import { gunEndpoints } from '@server/gun/endpoints.ts'
import { healthEndpoints } from '@server/health/endpoints.ts'
import { houseruleEndpoints } from '@server/houserule/endpoints.ts'
import { ingestEndpoints } from '@server/ingest/endpoints.ts'
import { logbookEndpoints } from '@server/logbook/endpoints.ts'
import { photoEndpoints } from '@server/photo/endpoints.ts'
import { partsEndpoints } from '@server/parts/endpoints.ts'
import { lifeEndpoints } from '@server/life/endpoints.ts'
import { paybackEndpoints } from '@server/payback/endpoints.ts'
import { peopleEndpoints } from '@server/people/endpoints.ts'
import { rightpartsEndpoints } from '@server/rightparts/endpoints.ts'
import { shopEndpoints } from '@server/shop/endpoints.ts'
import { spoolsEndpoints } from '@server/spools/endpoints.ts'
import { walkEndpoints } from '@server/walk/endpoints.ts'
import { type Endpoint } from '@server/call/routes.ts'
import { type AllDeps } from './alldeps.ts'

/** Equipment comes in by its own door, with a token instead of a cookie; it is described here and served in the app. */
export const equipmentDoor = {
  method: 'post' as const,
  path: '/ingest' as const,
  summary: 'Counters of a feeder; header "Authorization: Bearer <token>"',
  body: telemetryMessage,
  answer: telemetryAnswer,
}

export const endpoints: readonly Endpoint<AllDeps>[] = [
  ...floorEndpoints,
  ...rightpartsEndpoints,
  ...changeoverEndpoints,
  ...guideEndpoints,
  ...linerEndpoints,
  ...followupEndpoints,
  ...readingEndpoints,
  ...dragEndpoints,
  ...downEndpoints,
  ...paybackEndpoints,
  ...lifeEndpoints,
  ...gunEndpoints,
  ...logbookEndpoints,
  ...clockEndpoints,
  ...ingestEndpoints,
  ...shopEndpoints,
  ...partsEndpoints,
  ...buyingEndpoints,
  ...cellEndpoints,
  ...classEndpoints,
  ...practiceEndpoints,
  ...houseruleEndpoints,
  ...photoEndpoints,
  ...spoolsEndpoints,
  ...walkEndpoints,
  ...peopleEndpoints,
  ...healthEndpoints,
]
