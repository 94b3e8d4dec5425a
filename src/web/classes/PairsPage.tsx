import { useState } from 'react'
import { Link } from 'react-router'
import { COLUMNS } from '@core/path/columns.ts'
import { type PairLine } from '@contract/classes.ts'
import { useAddress } from '@web/kit/useAddress.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { Bare, Key } from '@web/kit/Keys.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { useIsLead } from '@web/people/queries.ts'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { PairForm } from './PairForm.tsx'
import { PairPhotos } from './PairPhotos.tsx'
import { PairShown } from './PairShown.tsx'
import { usePairs } from './pairqueries.ts'

/** Right and wrong, by place of the path: the cards that answer what is asked all day. */
export function PairsPage() {
  const { get, put } = useAddress()
  const pairs = usePairs()
  const isLead = useIsLead()
  const isPhone = useIsPhone()
  if (!pairs.data)
    return (
      <main className="pairs">
        <Waiting says="Getting the cards" problem={pairs.error} />
      </main>
    )
  const open = pairs.data.pairs.find((p) => p.key === get('pair'))
  return (
    <main className="pairs">
      <h1 className="sentence">{open ? open.name : 'Right and wrong: look here before you ask.'}</h1>
      {open ? (
        <Opened key={open.key} pair={open} isLead={isLead} onBack={() => put({ pair: null })} />
      ) : (
        <All pairs={pairs.data.pairs} onOpen={(key) => put({ pair: key }, { isStep: true })} />
      )}
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}

function All({ pairs, onOpen }: { pairs: readonly PairLine[]; onOpen: (key: string) => void }) {
  const places = [...COLUMNS, 'off' as const].filter((place) => pairs.some((p) => p.at === place))
  const own = pairs.filter((p) => p.photos.length > 0).length
  return (
    <>
      <p className="dim">
        {own === 0 ? 'No photo of this shop’s own yet.' : `${own} with photos of this shop’s own.`}{' '}
        <a href="/api/print/pairs.pdf" target="_blank" rel="noreferrer">
          Print all as cards
        </a>
      </p>
      <ul className="pairs-places">
        {places.map((place) => (
          <li key={place}>
            <strong>{place === 'off' ? 'beside it' : place}</strong>
            <div className="pairs-at">
              {pairs
                .filter((p) => p.at === place)
                .map((p) => (
                  <Key
                    size="low"
                    key={p.key}
                    className={p.isWrongHere ? 'is-off' : undefined}
                    onClick={() => onOpen(p.key)}
                  >
                    {p.name}
                    {p.isWrongHere ? ' (wrong here)' : ''}
                  </Key>
                ))}
            </div>
          </li>
        ))}
      </ul>
    </>
  )
}

function Opened(props: { pair: PairLine; isLead: boolean; onBack: () => void }) {
  const { pair, isLead } = props
  const [isWriting, setWriting] = useState(false)
  return (
    <>
      <PairShown pair={pair} />
      {isLead ? <PairPhotos pair={pair} /> : null}
      {isLead && isWriting ? <PairForm pair={pair} onDone={() => setWriting(false)} /> : null}
      <p className="pair-ways">
        {isLead && !isWriting ? <Bare onClick={() => setWriting(true)}>our own words, or wrong here</Bare> : null}
        <a href={`/api/print/pairs.pdf?pair=${pair.key}`} target="_blank" rel="noreferrer">
          print this card
        </a>
        <Link to="/pairs">all cards</Link>
      </p>
    </>
  )
}
