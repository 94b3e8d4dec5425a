import { Link } from 'react-router'
import { worstOf } from '@core/holding/holding.ts'
import { useIsLead } from '@web/people/queries.ts'
import { holdingSentence } from './holdwords.ts'
import { useHolding } from './holdquery.ts'

const EVERY_MS = 600_000

/** For leads, on every page: what somebody has to do today so that nothing is lost; nothing where nothing is to be done. */
export function HoldLine() {
  const holding = useHolding({ isAsked: useIsLead(), everyMs: EVERY_MS })
  if (!holding.data || worstOf(holding.data.lines.map((l) => l.level)) !== 'act') return null
  return (
    <p className="queue-line trouble" role="status">
      {holdingSentence(holding.data)} <Link to="/shop?part=holds">How it holds up</Link>
    </p>
  )
}
