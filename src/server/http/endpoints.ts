import { clockEndpoints } from '@server/clock/endpoints.ts'
import { floorEndpoints } from '@server/floor/endpoints.ts'
import { gunEndpoints } from '@server/gun/endpoints.ts'
import { ingestEndpoints } from '@server/ingest/endpoints.ts'
import { logbookEndpoints } from '@server/logbook/endpoints.ts'
import { peopleEndpoints } from '@server/people/endpoints.ts'
import { shopEndpoints } from '@server/shop/endpoints.ts'
import { type Endpoint } from './routes.ts'

export const endpoints: readonly Endpoint[] = [
  ...floorEndpoints,
  ...gunEndpoints,
  ...logbookEndpoints,
  ...clockEndpoints,
  ...ingestEndpoints,
  ...shopEndpoints,
  ...peopleEndpoints,
]
