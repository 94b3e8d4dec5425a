import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { drawChange, rightBuild, type WireOn } from './hands.ts'
import { changeOrder, drawOrder, ORDER_ACTS, orderFault, type OrderAct } from './order.ts'

const STEEL: WireOn = { material: 'steel', diameterMm: 0.9 }
const ALU: WireOn = { material: 'aluminium 5xxx', diameterMm: 1.2 }
const order = changeOrder(rightBuild(STEEL), ALU)
/** The guide’s own order with one act put at another place. */
const moved = (act: OrderAct, before: OrderAct): OrderAct[] => {
  const rest = order.acts.filter((a) => a !== act)
  return rest.flatMap((a) => (a === before ? [act, a] : [a]))
}

describe('the order of a change of wire', () => {
  it('has all acts from steel to aluminium, no liner between sizes that share one', () => {
    expect(order.acts).toEqual([...ORDER_ACTS])
    const near = changeOrder(rightBuild({ material: 'steel', diameterMm: 1.0 }), { material: 'steel', diameterMm: 1.2 })
    expect(near.acts).toEqual(ORDER_ACTS.filter((a) => a !== 'liner'))
  })
  it('as the guide has it is right, for any wires', () => {
    const random = makeRandom(5)
    for (let i = 0; i < 60; i++) {
      const { from, to } = drawChange(random)
      const one = changeOrder(from, to)
      expect(orderFault(one, one.acts)).toBeNull()
      expect(orderFault(one, drawOrder(one, random))).not.toBeNull()
    }
  })
  it('other orders that hold are right too: rolls after the liner, the spool before both', () => {
    expect(orderFault(order, moved('liner', 'rolls'))).toBeNull()
    expect(orderFault(order, moved('spoolOn', 'rolls'))).toBeNull()
  })
  it.each([
    ['spoolOff', 'wireBack', { act: 'spoolOff', lacks: 'wireOut' }],
    ['wireBack', 'front', { act: 'wireBack', lacks: 'tipOff' }],
    ['thread', 'rolls', { act: 'thread', lacks: 'spoolOn' }],
    ['feed', 'thread', { act: 'feed', lacks: 'threaded' }],
    ['tension', 'feed', { act: 'tension', lacks: 'powerOn' }],
    ['close', 'tension', { act: 'tension', lacks: 'powerOn' }],
    ['front', 'isolate', { act: 'front', lacks: 'powerOff' }],
  ] as const)('%s before %s cannot be', (act, before, fault) =>
    expect(orderFault(order, moved(act, before))).toEqual(fault),
  )
  it('rolls or liner with the new wire through them cannot be', () => {
    const after = (act: OrderAct, at: OrderAct) =>
      order.acts.filter((a) => a !== act).flatMap((a) => (a === at ? [a, act] : [a]))
    expect(orderFault(order, after('rolls', 'thread'))).toEqual({ act: 'rolls', lacks: 'wireOut' })
    expect(orderFault(order, after('liner', 'thread'))?.act).toBe('liner')
    expect(orderFault(order, after('rolls', 'feed'))).toEqual({ act: 'rolls', lacks: 'powerOff' })
  })
})
