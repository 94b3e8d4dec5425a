import {
  downAnswer,
  downNowAnswer,
  downNowQuery,
  downQuery,
  explainRequest,
  knowledgeAnswer,
  knowledgeRequest,
} from '@contract/down.ts'
import { tuneAnswer, tunedRequest, tuneKeptRequest, tuneQuery } from '@contract/tune.ts'
import { done } from '@contract/common.ts'
import { loggedAnswer } from '@contract/guide.ts'
import { endpoint } from '@server/call/routes.ts'
import { explain, readDown } from './down.ts'
import { readDownNow } from './downnow.ts'
import { keepTune, logTrial, readTune } from './tune.ts'
import { readKnowledge, setKnowledge } from './knowledge.ts'

export const downEndpoints = [
  endpoint({
    method: 'get',
    path: '/down',
    summary: 'What a search at one place needs: causes, checks, this shop’s own counts, stops elsewhere, a ready gun',
    query: downQuery,
    answer: downAnswer,
    run: (deps, who, { query }) => readDown(deps, who, query.stationId),
  }),
  endpoint({
    method: 'get',
    path: '/down/now',
    summary: 'What is down now, and the stops of the last days along the path',
    query: downNowQuery,
    answer: downNowAnswer,
    run: (deps, who, { query }) => readDownNow(deps, who, query),
  }),
  endpoint({
    method: 'post',
    path: '/down/explained',
    summary: 'What a stop turned out to be, and how that was come by',
    body: explainRequest,
    answer: loggedAnswer,
    run: (deps, who, { body }) => explain(deps, who, body),
  }),
  endpoint({
    method: 'get',
    path: '/down/tune',
    summary: 'Setting a machine by beads: the procedure, settings that worked, trials under way',
    query: tuneQuery,
    answer: tuneAnswer,
    run: (deps, who, { query }) => readTune(deps, who, query.stationId),
  }),
  endpoint({
    method: 'post',
    path: '/down/tune',
    summary: 'One value changed by itself, and what a row of beads showed',
    body: tunedRequest,
    answer: loggedAnswer,
    run: (deps, who, { body }) => logTrial(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/down/tune/kept',
    summary: 'Settings that worked, kept with the wire and mode that are on',
    body: tuneKeptRequest,
    answer: loggedAnswer,
    run: (deps, who, { body }) => keepTune(deps, who, body),
  }),
  endpoint({
    method: 'get',
    path: '/down/knowledge',
    summary: 'Why a gun stops, as the shop has it: symptoms, causes, checks',
    answer: knowledgeAnswer,
    run: (deps, who) => readKnowledge(deps, who),
  }),
  endpoint({
    method: 'post',
    path: '/down/knowledge',
    summary: 'A new version of it, or back to what ships; refused whole where something does not hold together',
    body: knowledgeRequest,
    answer: done,
    run: (deps, who, { body }) => setKnowledge(deps, who, body),
  }),
]
