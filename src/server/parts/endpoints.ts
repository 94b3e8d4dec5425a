import { done } from '@contract/common.ts'
import { countRequest, receivedRequest, supplyAnswer, tinRequest } from '@contract/parts.ts'
import { endpoint } from '@server/call/routes.ts'
import { countShelves, readSupply, receiveParts, weighTin } from './supply.ts'

export const partsEndpoints = [
  endpoint({
    method: 'get',
    path: '/parts/supply',
    summary: 'What purchases, counts and tins tell: the share of changes that was logged, wire to a part',
    answer: supplyAnswer,
    run: (deps, who) => readSupply(deps, who),
  }),
  endpoint({
    method: 'post',
    path: '/parts/count',
    summary: 'Count shelves: what is there of each part now',
    body: countRequest,
    answer: done,
    run: (deps, who, { body }) => countShelves(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/parts/received',
    summary: 'A delivery put on the shelf',
    body: receivedRequest,
    answer: done,
    run: (deps, who, { body }) => receiveParts(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/parts/tin',
    summary: 'Weigh an area’s tin of old parts',
    body: tinRequest,
    answer: done,
    run: (deps, who, { body }) => weighTin(deps, who, body),
  }),
]
