import {
  attemptRequest,
  drillSetEnd,
  drillSetRequest,
  practiceAnswer,
  practiceQuery,
  skillAnswer,
} from '@contract/practice.ts'
import { done } from '@contract/common.ts'
import { endpoint } from '@server/call/routes.ts'
import { endSet, keepAttempt, readPractice, readSkill, saveSet } from './practice.ts'

export const practiceEndpoints = [
  endpoint({
    method: 'get',
    path: '/practice',
    summary: 'What the practice booth needs: guns of this shop, what it knows, drills that were set',
    query: practiceQuery,
    answer: practiceAnswer,
    run: (deps, who, { query }) => readPractice(deps, who, query),
  }),
  endpoint({
    method: 'post',
    path: '/practice/attempt',
    summary: 'A drill played to its end, told of the group that has the booth',
    body: attemptRequest,
    answer: done,
    run: (deps, who, { body }) => keepAttempt(deps, who, body),
  }),
  endpoint({
    method: 'get',
    path: '/practice/skill',
    summary: 'By group and fault, how often it was found well; of nobody by name',
    answer: skillAnswer,
    run: (deps, who) => readSkill(deps, who),
  }),
  endpoint({
    method: 'post',
    path: '/practice/set',
    summary: 'Drills set for a group, or for all',
    body: drillSetRequest,
    answer: done,
    run: (deps, who, { body }) => saveSet(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/practice/end',
    summary: 'Drills that were set, taken back',
    body: drillSetEnd,
    answer: done,
    run: (deps, who, { body }) => endSet(deps, who, body),
  }),
]
