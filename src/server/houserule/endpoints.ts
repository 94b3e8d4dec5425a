import { done } from '@contract/common.ts'
import { choiceRequest, choicesAnswer, ignoredAnswer } from '@contract/houserule.ts'
import { endpoint } from '@server/call/routes.ts'
import { choose, readChoices } from './choices.ts'
import { readIgnored } from './ignored.ts'

export const houseruleEndpoints = [
  endpoint({
    method: 'get',
    path: '/houserule',
    summary: 'What the shop chose where practitioners differ',
    answer: choicesAnswer,
    run: (deps, who) => readChoices(deps, who),
  }),
  endpoint({
    method: 'get',
    path: '/houserule/ignored',
    summary: 'Limits that people run past and nothing comes of it',
    answer: ignoredAnswer,
    run: (deps, who) => readIgnored(deps, who),
  }),
  endpoint({
    method: 'post',
    path: '/houserule',
    summary: 'Choose a school for the site, a family, a feeder type, a mode or a class',
    body: choiceRequest,
    answer: done,
    run: (deps, who, { body }) => choose(deps, who, body),
  }),
]
