import { Button } from 'react-bootstrap'
import { Link } from 'react-router'
import { ago } from '@web/format/times.ts'
import { countWord } from '@web/format/words.ts'
import { queue, useQueue } from './device.ts'
import { waitingSince } from './queue.ts'

/** What waits on this device, since when, and what the server would not take; nothing where nothing does. */
export function QueueLine() {
  const state = useQueue()
  const since = waitingSince(state)
  const n = state.waiting.length
  return (
    <div className="queue-line" role="status">
      {since !== null && (n > 1 || state.failures > 0) ? (
        <p>
          {countWord(n)} {n === 1 ? 'entry' : 'entries'} kept on this device until there is a link, the oldest for{' '}
          {ago(since, Date.now())}. <Link to="/device">What waits</Link>
        </p>
      ) : null}
      {state.refused.map(({ entry, message }) => (
        <p key={entry.key} className="trouble">
          Not taken: {entry.says}. {message}{' '}
          <Button variant="" onClick={() => void queue.putAway(entry.key)}>
            put it away
          </Button>
        </p>
      ))}
    </div>
  )
}
