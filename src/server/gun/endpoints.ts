import { findAnswer, gunAnswer } from '@contract/gun.ts'
import { endpoint } from '@server/http/routes.ts'
import { findPlaces, readGun } from './gun.ts'

export const gunEndpoints = [
  endpoint({
    method: 'get',
    path: '/gun/:stationId',
    summary: 'What is on one gun and whether it is due',
    answer: gunAnswer,
    run: (deps, who, { params }) => readGun(deps, who, params['stationId'] ?? ''),
  }),
  endpoint({
    method: 'get',
    path: '/find',
    summary: 'Every place by its painted name, for finding a gun',
    answer: findAnswer,
    run: (deps, who) => findPlaces(deps, who),
  }),
]
