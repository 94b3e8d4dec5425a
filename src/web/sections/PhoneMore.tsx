import { Link, useLocation } from 'react-router'
import { useMe } from '@web/people/queries.ts'
import { sectionsFor } from './sections.ts'

/** The other sections, at the end of a phone's page. */
export function PhoneMore() {
  const place = useLocation()
  const me = useMe()
  return (
    <nav className="phone-more" aria-label="More">
      {[...sectionsFor(me.data), { to: '/scan', name: 'Scan' }, { to: '/device', name: 'This device' }]
        .filter((s) => s.to !== place.pathname)
        .map((s) => (
          <Link key={s.to} className="key key-low" to={s.to}>
            {s.name}
          </Link>
        ))}
    </nav>
  )
}
