import { done } from '@contract/common.ts'
import {
  lifeAnswer,
  lifeQuery,
  lifeRuleRequest,
  lifeWordRequest,
  previewAnswer,
  previewQuery,
  signsAnswer,
  signsQuery,
  tryoutEndRequest,
  tryoutRequest,
} from '@contract/life.ts'
import { kindRequest } from '@contract/shop.ts'
import { mustLead } from '@server/call/context.ts'
import { saveKind } from '@server/shop/kind.ts'
import { endpoint } from '@server/call/routes.ts'
import { chooseLifeRule, previewRule, sayWord, termsOf } from './rule.ts'
import { endTryout, startTryout } from './tryouts.ts'
import { askBasis, askRead, askSigns, askTold, thenForget, type LifeDeps } from './work.ts'

export const lifeEndpoints = [
  endpoint({
    method: 'get',
    path: '/life',
    summary: 'How long a kind of part lasts here, its house rules in money, and who takes more than their share',
    query: lifeQuery,
    answer: lifeAnswer,
    run: async (deps: LifeDeps, who, { query }) => {
      mustLead(who)
      return { ...(await askRead(deps.lifeWork, query)), progress: deps.lifeWork.progress() }
    },
  }),
  endpoint({
    method: 'get',
    path: '/life/preview',
    summary: 'What another limit would move on Floor',
    query: previewQuery,
    answer: previewAnswer,
    run: (deps: LifeDeps, who, { query }) => previewRule(deps, who, query),
  }),
  endpoint({
    method: 'get',
    path: '/life/signs',
    summary: 'The liner’s rule by signs under some terms: what it would have seen here, and what it costs',
    query: signsQuery,
    answer: signsAnswer,
    run: (deps: LifeDeps, who, { query }) => {
      mustLead(who)
      return askSigns(deps.lifeWork, { where: query.where, terms: termsOf(query) })
    },
  }),
  endpoint({
    method: 'post',
    path: '/life/rule',
    summary: 'Choose when a kind is changed at a class of places',
    body: lifeRuleRequest,
    answer: done,
    run: async (deps: LifeDeps, who, { body }) => {
      mustLead(who)
      const basis = await askBasis(deps.lifeWork, body.kindKey, body.classKey)
      return thenForget(deps, await chooseLifeRule(deps, who, { request: body, basis }))
    },
  }),
  endpoint({
    method: 'post',
    path: '/shop/kind',
    summary: 'A kind of part: minutes, how long it stays seen, what its life is counted in, other names',
    body: kindRequest,
    answer: done,
    // What was fitted to its lives may have been in another unit.
    run: async (deps: LifeDeps, who, { body }) => thenForget(deps, await saveKind(deps, who, body)),
  }),
  endpoint({
    method: 'post',
    path: '/life/word',
    summary: 'Say how long a kind usually lasts, and when one in ten is gone already',
    body: lifeWordRequest,
    answer: done,
    run: async (deps: LifeDeps, who, { body }) => thenForget(deps, await sayWord(deps, who, body)),
  }),
  endpoint({
    method: 'post',
    path: '/life/tryout',
    summary: 'Start a try-out: places are dealt to two sides by lot',
    body: tryoutRequest,
    answer: done,
    run: async (deps: LifeDeps, who, { body }) => thenForget(deps, await startTryout(deps, who, body)),
  }),
  endpoint({
    method: 'post',
    path: '/life/tryout/end',
    summary: 'End a try-out and keep what it came to',
    body: tryoutEndRequest,
    answer: done,
    run: async (deps: LifeDeps, who, { body }) =>
      thenForget(
        deps,
        await endTryout(deps, who, { request: body, told: (kindKey) => askTold(deps.lifeWork, kindKey) }),
      ),
  }),
]
