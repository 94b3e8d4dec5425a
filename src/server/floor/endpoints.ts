import { type KeptDeps } from '@server/lifekept/kept.ts'
import { type ShareDeps } from '@server/parts/sharestore.ts'
import { z } from 'zod'
import { COLUMNS } from '@core/path/columns.ts'
import { idOf } from '@contract/common.ts'
import { floorAnswer, floorMoved } from '@contract/floor.ts'
import { endpoint } from '@server/call/routes.ts'
import { readFloor, readMoved } from './floor.ts'
import { type SurveyDeps } from './surveystore.ts'

const filter = z.object({ areaId: idOf('area').optional(), column: z.enum(COLUMNS).optional() })

export const floorEndpoints = [
  endpoint({
    method: 'get',
    path: '/floor',
    summary: 'What needs hands now: every gun, the opened rows first by rank',
    query: filter,
    answer: floorAnswer,
    run: (deps: SurveyDeps & KeptDeps & ShareDeps, who, { query }) => readFloor(deps, who, query),
  }),
  endpoint({
    method: 'get',
    path: '/moved/floor',
    summary: 'The same for who has an answer already: of its guns only those that are another since',
    query: filter.extend({ since: z.string().max(40) }),
    answer: floorMoved,
    run: (deps: SurveyDeps & KeptDeps & ShareDeps, who, { query }) => readMoved(deps, who, query),
  }),
]
