import { Link } from 'react-router'
import { type GunAnswer } from '@contract/gun.ts'

/** At a booth to learn at: the look before class, what to do about a bad bead, the cards, a quiz about this gun. */
export function LearnHere({ gun }: { gun: GunAnswer }) {
  if (gun.ruledBy.class !== 'training') return null
  return (
    <p className="learn-here">
      <Link className="key key-low" to={`/before-class?gun=${gun.stationId}&name=${encodeURIComponent(gun.name)}`}>
        Before class
      </Link>
      <Link className="key key-low" to={`/technique?gun=${gun.stationId}`}>
        A bad bead
      </Link>
      <Link className="key key-low" to="/pairs">
        Right and wrong
      </Link>
      <Link className="key key-low" to={`/quiz?gun=${gun.stationId}`}>
        Quiz
      </Link>
    </p>
  )
}
