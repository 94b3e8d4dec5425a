import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Link } from 'react-router'
import { type FindingLine, type LookAnswer, type LookGun } from '@contract/rightparts.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { type Units } from '@web/format/numbers.ts'
import { ago } from '@web/format/times.ts'
import { useMe } from '@web/people/queries.ts'
import { useShop } from '@web/shopmodel/queries.ts'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { Waiting } from '@web/kit/Waiting.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { isWrong, lookSentence, nextGun } from './look.ts'
import { LookAtGun } from './LookAtGun.tsx'
import { useFirstLook } from './queries.ts'
import { findingPlace, findingSentence } from './words.ts'

const SECONDS_A_GUN = 12

/** First look: a walk that only asks what is on each gun, and ends with how many are built wrong. */
export function LookPage() {
  const { get, put } = useAddress()
  const areaId = get('area') || null
  const look = useFirstLook(areaId)
  const shop = useShop()
  const me = useMe()
  const isPhone = useIsPhone()
  const [last, setLast] = useState<{ name: string; findings: FindingLine[] | null } | null>(null)
  const units = me.data?.units ?? 'metric'
  if (!look.data || !shop.data)
    return (
      <main className="look">
        <Waiting says="Looking over the guns" problem={look.error ?? shop.error} />
      </main>
    )
  const at = look.data.guns.find((g) => g.stationId === get('gun'))
  const to = (gun: LookGun | null) => put({ gun: gun?.stationId ?? null }, { isStep: true })
  if (at)
    return (
      <LookAtGun
        key={at.stationId}
        gun={at}
        place={`${look.data.guns.indexOf(at) + 1} of ${look.data.guns.length}`}
        shop={shop.data}
        units={units}
        last={last}
        onSeen={(findings) => {
          setLast({ name: at.name, findings })
          to(nextGun(look.data, at.stationId))
        }}
        onSkip={() => to(nextGun(look.data, at.stationId))}
        onLeave={() => to(null)}
      />
    )
  return (
    <main className="look">
      <h1 className="sentence">{lookSentence(look.data)}</h1>
      <Begin
        look={look.data}
        shop={shop.data}
        areaId={areaId}
        onArea={(area) => put({ area }, { isStep: true })}
        onGun={to}
      />
      <WrongOnes look={look.data} units={units} />
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}

function Begin(props: {
  look: LookAnswer
  shop: ShopAnswer
  areaId: string | null
  onArea: (areaId: string | null) => void
  onGun: (gun: LookGun) => void
}) {
  const { look, areaId } = props
  const unseen = look.guns.filter((g) => g.lookedMs === null)
  const [first] = unseen.length > 0 ? unseen : look.guns
  const untold = props.shop.areas.find((a) => a.built.wireId === null && look.guns.some((g) => g.areaId === a.id))
  const minutes = Math.max(1, Math.round(((unseen.length || look.guns.length) * SECONDS_A_GUN) / 60))
  return (
    <section aria-label="Walk">
      <div className="look-areas">
        {look.areas.map((a) => (
          <Key
            key={a.id}
            size="low"
            aria-pressed={a.id === areaId}
            onClick={() => props.onArea(a.id === areaId ? null : a.id)}
          >
            {a.name}
          </Key>
        ))}
      </div>
      {untold ? (
        <p className="said">
          Nobody has said what {untold.name} welds with:{' '}
          <Link to={`/bay?area=${untold.id}`}>seven questions first</Link>, then a look is one tap a gun.
        </p>
      ) : null}
      {first ? (
        <Key tone="chalk" className="look-begin" onClick={() => props.onGun(first)}>
          Begin at {first.name}
          <small>
            {unseen.length > 0 ? `${unseen.length} to look at` : 'all of them again'}, about {minutes} min
          </small>
        </Key>
      ) : null}
    </section>
  )
}

function WrongOnes({ look, units }: { look: LookAnswer; units: Units }) {
  const wrong = look.guns.filter(isWrong)
  const doubted = look.guns.filter(
    (g) => !isWrong(g) && g.findings.some((f) => f.severity === 'harms' && f.kept === null),
  )
  return (
    <>
      {[
        { title: 'Built wrong', guns: wrong, severity: 'stops' },
        { title: 'To look at', guns: doubted, severity: 'harms' },
      ].map(({ title, guns, severity }) =>
        guns.length === 0 ? null : (
          <section key={title} aria-label={title}>
            <h2>{title}</h2>
            <ul className="plain look-list">
              {guns.map((g) => (
                <li key={g.stationId}>
                  <Link to={`/gun/${g.stationId}`}>{g.name}</Link>
                  <span>
                    {g.findings
                      .filter((f) => f.severity === severity && f.kept === null)
                      .map((f) => `${findingPlace(f)}: ${findingSentence(f, units)}`)
                      .join(' ')}
                  </span>
                  <span className="dim">
                    {g.lookedMs === null ? '' : `looked at ${ago(g.lookedMs, look.nowMs)} ago`}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        ),
      )}
    </>
  )
}
