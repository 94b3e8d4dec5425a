import { Link } from 'react-router'
import { Bare } from '@web/kit/Keys.tsx'
import { capital } from '@web/format/words.ts'
import { helpTime, HELP_WORDS } from './helpwords.ts'
import { useCloseHelps, useHelps } from './queries.ts'

/** On Floor of a young shop: the few things that would help most for the time they take. Gone when done, or when the lead puts it away. */
export function Helps({ isLead }: { isLead: boolean }) {
  const { data } = useHelps(isLead)
  const close = useCloseHelps()
  if (!isLead || !data || data.helps.length === 0) return null
  return (
    <section className="helps" aria-label="What else would help">
      <ol className="plain">
        {data.helps.map(({ key, areaId }) => (
          <li key={key}>
            <Link to={HELP_WORDS[key].to(areaId)}>
              <span className="helps-time">{helpTime(key)}</span>
              <strong>{capital(HELP_WORDS[key].ask)}</strong>
              <span className="dim">{HELP_WORDS[key].then}</span>
            </Link>
            {key === 'cards' ? (
              <Bare disabled={close.isPending} onClick={() => close.mutate({ what: 'cards' })}>
                they hang
              </Bare>
            ) : null}
          </li>
        ))}
      </ol>
      <Bare disabled={close.isPending} onClick={() => close.mutate({ what: 'all' })}>
        don’t show this any more
      </Bare>
    </section>
  )
}
