import { type FloorDeps } from '@server/gunnow/positions.ts'
import { type KeptDeps } from '@server/lifekept/kept.ts'
import { type ShareDeps } from '@server/parts/sharestore.ts'
import { z } from 'zod'
import { COLUMNS } from '@core/path/columns.ts'
import { idOf } from '@contract/common.ts'
import { floorAnswer } from '@contract/floor.ts'
import { endpoint } from '@server/call/routes.ts'
import { readFloor } from './floor.ts'

export const floorEndpoints = [
  endpoint({
    method: 'get',
    path: '/floor',
    summary: 'What needs hands now: every gun, the opened rows first by rank',
    query: z.object({ areaId: idOf('area').optional(), column: z.enum(COLUMNS).optional() }),
    answer: floorAnswer,
    run: (deps: FloorDeps & KeptDeps & ShareDeps, who, { query }) => readFloor(deps, who, query),
  }),
]
