import { Link } from 'react-router'
import { type ShopAnswer } from '@contract/shop.ts'
import { Cautions } from './Cautions.tsx'

/** Guides by family, to be read and printed; under them the cautions they show. */
export function GuidesHere({ shop, isLead }: { shop: ShopAnswer; isLead: boolean }) {
  return (
    <>
      <h2>How work is done here</h2>
      <p className="said">
        Every guide is made for one gun from how it is built and from your house rules; here they are by family, to be
        printed and to be said in your own words.
      </p>
      <div className="guide-list">
        {shop.families.map((f) => (
          <Link key={f.id} className="key key-low" to={`/guide?family=${f.id}`}>
            {f.name} guns
          </Link>
        ))}
      </div>
      {shop.families.length === 0 ? <p>No family is described yet: do so under what fits.</p> : null}
      {isLead ? (
        <>
          <h2>Cautions</h2>
          <Cautions />
        </>
      ) : null}
    </>
  )
}
