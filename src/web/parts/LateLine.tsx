import { type LateAnswer } from '@contract/stock.ts'
import { Link } from 'react-router'
import { shortDate } from '@web/format/times.ts'
import { listed } from '@web/format/words.ts'
import { useIsLead } from '@web/people/queries.ts'
import { useLate } from './queries.ts'

/** On Floor: an order that is late, where a gun will wait for it; else nothing. */
export function LateLine() {
  const late = useLate()
  const isLead = useIsLead()
  const says = late.data ? lateSentence(late.data) : ''
  if (says === '') return null
  return (
    <p className="late-line" role="status">
      {says} {isLead ? <Link to="/parts">Parts</Link> : null}
    </p>
  )
}

export function lateSentence({ late, zone }: LateAnswer): string {
  const [first] = [...late].sort((a, b) => a.outDays - b.outDays)
  if (!first) return ''
  const there = first.onHand === null || first.onHand <= 0 ? 'none is left' : `${first.onHand} are left`
  const lasts =
    first.outDays < 1
      ? 'for today at most'
      : `for about ${Math.round(first.outDays)} ${Math.round(first.outDays) === 1 ? 'day' : 'days'}`
  const where =
    first.stands.length > 0
      ? ` ${listed(first.stands)} ${first.stands.length === 1 ? 'waits' : 'wait'} for it then.`
      : ''
  const more = late.length > 1 ? ` ${late.length - 1} more ${late.length === 2 ? 'part is' : 'parts are'} as late.` : ''
  return `${first.code} (${first.name}) should have come from ${first.supplierName} on ${shortDate(first.dueMs, zone)}; ${there}, ${lasts}.${where}${more}`
}
