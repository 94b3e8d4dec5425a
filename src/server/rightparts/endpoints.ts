import { type FloorDeps } from '@server/gunnow/positions.ts'
import { done } from '@contract/common.ts'
import {
  issueAnswer,
  issueRequest,
  jointRequest,
  jointsAnswer,
  jointsQuery,
  keepRequest,
  lookAnswer,
  lookedAnswer,
  lookQuery,
  lookRequest,
  setRequest,
  tagRequest,
} from '@contract/rightparts.ts'
import { endpoint } from '@server/call/routes.ts'
import { issue, jointTrouble, keepFinding, look, setSettings, tag } from './act.ts'
import { readFirstLook } from './first.ts'
import { readJoints } from './joints.ts'

const post = { method: 'post' as const, answer: done }

export const rightpartsEndpoints = [
  endpoint({
    method: 'get',
    path: '/rightparts/look',
    summary: 'Guns in walking order with what is on them, for a look at how they are built',
    query: lookQuery,
    answer: lookAnswer,
    run: (deps: FloorDeps, who, { query }) => readFirstLook(deps, who, query.areaId),
  }),
  endpoint({
    method: 'post',
    path: '/rightparts/look',
    summary: 'What was seen on one gun; answers what does not fit',
    body: lookRequest,
    answer: lookedAnswer,
    run: (deps, who, { body }) => look(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/rightparts/set',
    summary: 'Adjustable things as read or set: roll faces, polarity, machine, tip position',
    body: setRequest,
    run: (deps, who, { body }) => setSettings(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/rightparts/keep',
    summary: 'The lead lives with a finding, or takes that back',
    body: keepRequest,
    run: (deps, who, { body }) => keepFinding(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/rightparts/tag',
    summary: 'A temporary setting: tied, or back as it was',
    body: tagRequest,
    run: (deps, who, { body }) => tag(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/rightparts/joint',
    summary: 'A joint that gave trouble',
    body: jointRequest,
    run: (deps, who, { body }) => jointTrouble(deps, who, body),
  }),
  endpoint({
    method: 'get',
    path: '/rightparts/joints',
    summary: 'Trouble with joints by family, both ways, and what to do about it',
    query: jointsQuery,
    answer: jointsAnswer,
    run: (deps, who, { query }) => readJoints(deps, who, query.familyId),
  }),
  endpoint({
    method: 'post',
    path: '/parts/issue',
    summary: 'A part handed out for a gun; one that does not fit is refused with the reason',
    body: issueRequest,
    answer: issueAnswer,
    run: (deps, who, { body }) => issue(deps, who, body),
  }),
]
