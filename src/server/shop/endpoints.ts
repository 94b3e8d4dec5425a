import { done } from '@contract/common.ts'
import {
  areaRequest,
  bayRequest,
  classRequest,
  familyRequest,
  feederTypeRequest,
  limitsRequest,
  moveRequest,
  partRequest,
  procedureRequest,
  placesAnswer,
  placesRequest,
  ruleRequest,
  shiftsRequest,
  shopAnswer,
  siteRequest,
  stationRequest,
  wireRequest,
} from '@contract/shop.ts'
import { endpoint } from '@server/call/routes.ts'
import {
  saveArea,
  saveClass,
  saveLimits,
  savePart,
  saveRule,
  saveShifts,
  saveSite,
  saveStation,
  saveWire,
} from './change.ts'
import { helpsAnswer, helpsClosedRequest } from '@contract/firsthour.ts'
import { feederAnswer, feederRequest } from '@contract/telemetry.ts'
import { saveBay } from './bay.ts'
import { makeFeeder } from './feeders.ts'
import { moveGun } from './move.ts'
import { closeHelps, readHelps } from './helps.ts'
import { makePlaces } from './places.ts'
import { saveFamily, saveFeederType, saveProcedure } from './fit.ts'
import { readShop } from './shop.ts'

const post = { method: 'post' as const, answer: done }

export const shopEndpoints = [
  endpoint({
    method: 'get',
    path: '/shop',
    summary: 'How the shop is set up',
    answer: shopAnswer,
    run: (deps, who) => readShop(deps, who),
  }),
  endpoint({
    method: 'post',
    path: '/shop/places',
    summary: 'Places by number: A1–A24',
    body: placesRequest,
    answer: placesAnswer,
    run: (deps, who, { body }) => makePlaces(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/shop/site',
    summary: 'Name, time zone, units, currency',
    body: siteRequest,
    run: (deps, who, { body }) => saveSite(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/shop/area',
    summary: 'An area: name, how its guns are built, the order of its walk',
    body: areaRequest,
    run: (deps, who, { body }) => saveArea(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/shop/station',
    summary: 'One place: name, class, what is different on it',
    body: stationRequest,
    run: (deps, who, { body }) => saveStation(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/shop/move',
    summary: 'A gun hangs at another place now',
    body: moveRequest,
    run: (deps, who, { body }) => moveGun(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/shop/feeder',
    summary: 'A token for a feeder that sends its counters',
    body: feederRequest,
    answer: feederAnswer,
    run: (deps, who, { body }) => makeFeeder(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/shop/rule',
    summary: 'A house rule: change or clean at so much use, look every so many days',
    body: ruleRequest,
    run: (deps, who, { body }) => saveRule(deps, who, body),
  }),
  endpoint({
    method: 'get',
    path: '/shop/helps',
    summary: 'What else would help a young shop, at most three lines',
    answer: helpsAnswer,
    run: (deps, who) => readHelps(deps, who),
  }),
  endpoint({
    ...post,
    path: '/shop/helps-closed',
    summary: 'That list put away for good',
    body: helpsClosedRequest,
    run: (deps, who, { body }) => closeHelps(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/shop/limits',
    summary: 'Several house rules at once, as the trade has them',
    body: limitsRequest,
    run: (deps, who, { body }) => saveLimits(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/shop/bay',
    summary: 'A bay from seven answers: wire, family, feeder, parts, how its guns are built',
    body: bayRequest,
    run: (deps, who, { body }) => saveBay(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/shop/class',
    summary: 'What an hour of labour and of standing costs',
    body: classRequest,
    run: (deps, who, { body }) => saveClass(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/shop/part',
    summary: 'A part, its price, and how many are on hand',
    body: partRequest,
    run: (deps, who, { body }) => savePart(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/shop/family',
    summary: 'A fit family, new or changed',
    body: familyRequest,
    run: (deps, who, { body }) => saveFamily(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/shop/feedertype',
    summary: 'A type of feeder',
    body: feederTypeRequest,
    run: (deps, who, { body }) => saveFeederType(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/shop/procedure',
    summary: 'A written procedure',
    body: procedureRequest,
    run: (deps, who, { body }) => saveProcedure(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/shop/wire',
    summary: 'A wire',
    body: wireRequest,
    run: (deps, who, { body }) => saveWire(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/shop/shifts',
    summary: 'The week’s shifts of an area or the shop, and holidays',
    body: shiftsRequest,
    run: (deps, who, { body }) => saveShifts(deps, who, body),
  }),
]
