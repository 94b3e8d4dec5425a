import { type StationId } from '@core/ids/id.ts'
import { type KeptDeps } from '@server/lifekept/kept.ts'
import { type ShareDeps } from '@server/parts/sharestore.ts'
import { done } from '@contract/common.ts'
import { findAnswer, gunAnswer } from '@contract/gun.ts'
import { gunRequest, sparesAnswer, sparesQuery, statusRequest, swapRequest } from '@contract/spareguns.ts'
import { endpoint } from '@server/call/routes.ts'
import { findPlaces, readGun } from './gun.ts'
import { readSpares } from '@server/gunnow/spares.ts'
import { makeGun, setGunStatus, swapGun } from './swap.ts'

const post = { method: 'post' as const, answer: done }

export const gunEndpoints = [
  endpoint({
    method: 'get',
    path: '/gun/spares',
    summary: 'Guns that hang nowhere: ready, or to refurbish',
    query: sparesQuery,
    answer: sparesAnswer,
    run: (deps, who, { query }) => readSpares(deps, who, query.stationId),
  }),
  endpoint({
    ...post,
    path: '/gun/swap',
    summary: 'Another gun hung at a place',
    body: swapRequest,
    run: (deps, who, { body }) => swapGun(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/gun/spare',
    summary: 'A gun that hangs nowhere yet',
    body: gunRequest,
    run: (deps, who, { body }) => makeGun(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/gun/status',
    summary: 'A loose gun is ready, or to refurbish',
    body: statusRequest,
    run: (deps, who, { body }) => setGunStatus(deps, who, body),
  }),
  endpoint({
    method: 'get',
    path: '/gun/:stationId',
    summary: 'What is on one gun and whether it is due',
    answer: gunAnswer,
    run: (deps: KeptDeps & ShareDeps, who, { params }) => readGun(deps, who, (params['stationId'] ?? '') as StationId),
  }),
  endpoint({
    method: 'get',
    path: '/find',
    summary: 'Every place by its painted name, for finding a gun',
    answer: findAnswer,
    run: (deps, who) => findPlaces(deps, who),
  }),
]
