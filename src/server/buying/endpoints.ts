import { done } from '@contract/common.ts'
import { carryRequest, storeClosedRequest, storeRequest } from '@contract/parts.ts'
import {
  kitAnswer,
  kitClosedRequest,
  kitQuery,
  kitRequest,
  lateAnswer,
  offerRequest,
  orderClosedRequest,
  orderReceivedRequest,
  orderRequest,
  shelfRequest,
  stockAnswer,
  stockQuery,
  supplierRequest,
} from '@contract/stock.ts'
import { mustLead } from '@server/call/context.ts'
import { endpoint } from '@server/call/routes.ts'
import { askStock, type LifeDeps } from '@server/life/work.ts'
import { carryParts, closeStore, saveStore } from './stores.ts'
import { closeKit, packKit, readKits } from './kits.ts'
import { readLate } from './late.ts'
import { closeOrder, placeOrder, receiveOrder, saveOffer, saveShelf, saveSupplier } from './write.ts'

export const buyingEndpoints = [
  endpoint({
    method: 'get',
    path: '/parts',
    summary: 'What will be wanted of each part, what is there, what to buy and why; to a day too, where one is given',
    query: stockQuery,
    answer: stockAnswer,
    run: async (deps: LifeDeps, who, { query }) => {
      mustLead(who)
      return askStock(deps.lifeWork, query.until)
    },
  }),
  endpoint({
    method: 'get',
    path: '/parts/late',
    summary: 'Orders that are late, of parts some gun is to wait for',
    answer: lateAnswer,
    run: (deps: LifeDeps, who) => readLate(deps, who),
  }),
  endpoint({
    method: 'get',
    path: '/parts/kit',
    summary: 'What is due or wrong on the floor as parts to take along, in shelf order; kits that are packed',
    query: kitQuery,
    answer: kitAnswer,
    run: (deps, who, { query }) => readKits(deps, who, query),
  }),
  endpoint({
    method: 'post',
    path: '/parts/kit',
    summary: 'A kit that was packed',
    body: kitRequest,
    answer: done,
    run: (deps, who, { body }) => packKit(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/parts/kit/closed',
    summary: 'A kit that was used up or given back',
    body: kitClosedRequest,
    answer: done,
    run: (deps, who, { body }) => closeKit(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/parts/supplier',
    summary: 'Who sells parts: how long an order takes, what one costs, in which columns they want it',
    body: supplierRequest,
    answer: done,
    run: (deps, who, { body }) => saveSupplier(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/parts/offer',
    summary: 'What one of them sells a part for: pack, prices by quantity, whether it is known to fit',
    body: offerRequest,
    answer: done,
    run: (deps, who, { body }) => saveOffer(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/parts/shelf',
    summary: 'Where a part lies, and how many go there',
    body: shelfRequest,
    answer: done,
    run: (deps, who, { body }) => saveShelf(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/parts/store',
    summary: 'A place where parts lie besides the main one: which areas it serves, for how many days it is filled',
    body: storeRequest,
    answer: done,
    run: (deps, who, { body }) => saveStore(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/parts/store/closed',
    summary: 'A place where parts lie that is given up: what lies there goes to the main one',
    body: storeClosedRequest,
    answer: done,
    run: (deps, who, { body }) => closeStore(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/parts/carry',
    summary: 'Parts carried from one place where they lie to another',
    body: carryRequest,
    answer: done,
    run: (deps, who, { body }) => carryParts(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/parts/order',
    summary: 'An order that was placed: parts and how many',
    body: orderRequest,
    answer: done,
    run: (deps, who, { body }) => placeOrder(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/parts/order/received',
    summary: 'What came of an order, put on the shelf',
    body: orderReceivedRequest,
    answer: done,
    run: (deps, who, { body }) => receiveOrder(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/parts/order/closed',
    summary: 'The rest of an order does not come',
    body: orderClosedRequest,
    answer: done,
    run: (deps, who, { body }) => closeOrder(deps, who, body),
  }),
]
