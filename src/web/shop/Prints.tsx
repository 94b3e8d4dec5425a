import { type ShopAnswer } from '@contract/shop.ts'
import { isLoopback } from './Reach.tsx'

const href = (what: string, areaId?: string) =>
  `/api/print.pdf?what=${what}${areaId ? `&areaId=${encodeURIComponent(areaId)}` : ''}`

/** Paper: a card for each booth whose codes log without glass, labels for guns and spools. */
export function Prints({ shop }: { shop: ShopAnswer }) {
  const areas = shop.areas.filter((a) => shop.stations.some((s) => s.areaId === a.id))
  return (
    <>
      <p className="said">
        A card hangs in each booth: scan what you did with any scanner that types, or with a phone’s own camera, and it
        is logged. No glass touched.
      </p>
      {isLoopback() ? (
        <p className="said">
          You are on the machine itself, so codes printed now open only there; scanners that type still work. Start with
          --lan and open this page by the address it prints before you print cards for phones.
        </p>
      ) : null}
      <h2>Booth cards</h2>
      <ul className="plain prints">
        {areas.map((a) => (
          <li key={a.id}>
            <a href={href('cards', a.id)} target="_blank" rel="noreferrer">
              {a.name}, {shop.stations.filter((s) => s.areaId === a.id).length} cards
            </a>
          </li>
        ))}
        <li>
          <a href={href('cards')} target="_blank" rel="noreferrer">
            all {shop.stations.length}
          </a>
        </li>
      </ul>
      <h2>Look first</h2>
      <ul className="plain prints">
        <li>
          <a href="/api/print/symptoms.pdf" target="_blank" rel="noreferrer">
            a card for each thing that goes wrong, right beside wrong
          </a>
        </li>
      </ul>
      <h2>Labels</h2>
      <ul className="plain prints">
        <li>
          <a href={href('guns')} target="_blank" rel="noreferrer">
            guns
          </a>
        </li>
        <li>
          <a href={href('spools')} target="_blank" rel="noreferrer">
            spools that have a number
          </a>
        </li>
      </ul>
      <p className="small-print">
        PDF, A4. Laminate booth cards: spatter eats paper. A gun that is renamed needs a new card.
      </p>
    </>
  )
}
