import { Plain } from '@web/kit/Keys.tsx'
import { useSearchParams } from 'react-router'
import { type ShopAnswer } from '@contract/shop.ts'
import { useIsLead } from '@web/people/queries.ts'
import { Schools } from '@web/houserule/Schools.tsx'
import { Supply } from '@web/parts/Supply.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { GuidesHere } from '@web/guide/GuidesHere.tsx'
import { BringIn } from './BringIn.tsx'
import { FitForms } from './FitForms.tsx'
import { GunsAndJoints } from './GunsAndJoints.tsx'
import { Holds } from './Holds.tsx'
import { PartsList } from './PartsList.tsx'
import { People } from './People.tsx'
import { Places } from './Places.tsx'
import { Prints } from './Prints.tsx'
import { Reach } from './Reach.tsx'
import { Rules } from './Rules.tsx'
import { Shifts } from './Shifts.tsx'
import { SETUP, setupPart } from './setup.ts'
import { SiteForm } from './SiteForm.tsx'
import { WhyItStops } from '@web/down/WhyItStops.tsx'
import { useShop } from '@web/shopmodel/queries.ts'

/** Our shop: how it is set up. Everybody may look; leads change it. */
export function ShopPage() {
  const shop = useShop()
  const [params, setParams] = useSearchParams()
  const tab = params.get('part') ?? 'places'
  const isLead = useIsLead()
  if (!shop.data)
    return (
      <main className="shop">
        <Waiting says="Reading how the shop is set up" problem={shop.error} />
      </main>
    )
  const at = setupPart(tab)
  // Prices are told to leads alone: to others all would seem to be missing.
  const missing = isLead ? (at?.missing?.(shop.data) ?? null) : null
  return (
    <main className="shop">
      <h1 className="sentence">{shopSentence(shop.data)}</h1>
      <nav className="shop-groups" aria-label="Parts of the set-up">
        {SETUP.map(({ group, parts }) => (
          <div key={group} className="shop-words" role="group" aria-label={group}>
            <span className="dim" aria-hidden="true">
              {group}
            </span>
            {Object.entries(parts).map(([key, { name }]) => (
              <Plain key={key} aria-current={tab === key ? 'page' : undefined} onClick={() => setParams({ part: key })}>
                {name}
              </Plain>
            ))}
          </div>
        ))}
      </nav>
      <p className="shop-for">
        {at?.isFor} {missing ? <strong>{missing}</strong> : null}
      </p>
      {isLead ? null : <p className="small-print">To look at. A lead signs in to change it.</p>}
      <fieldset disabled={!isLead} className="shop-part">
        <Part tab={tab} shop={shop.data} isLead={isLead} />
      </fieldset>
    </main>
  )
}

function shopSentence(shop: ShopAnswer): string {
  if (shop.stations.length === 0) return `${shop.site.name}: no guns yet.`
  return `${shop.site.name}: ${shop.stations.length} ${shop.stations.length === 1 ? 'gun' : 'guns'} in ${shop.areas.length} ${shop.areas.length === 1 ? 'area' : 'areas'}.`
}

function Part({ tab, shop, isLead }: { tab: string; shop: ShopAnswer; isLead: boolean }) {
  switch (tab) {
    case 'parts':
      return <PartsList shop={shop} />
    case 'fit':
      return <FitForms shop={shop} />
    case 'guns':
      return <GunsAndJoints shop={shop} />
    case 'counts':
      return <Supply shop={shop} isLead={isLead} />
    case 'rules':
      return <Rules shop={shop} />
    case 'schools':
      return <Schools shop={shop} isLead={isLead} />
    case 'why':
      return isLead ? <WhyItStops /> : <p className="said">Leads see and change this.</p>
    case 'guides':
      return <GuidesHere shop={shop} isLead={isLead} />
    case 'shifts':
      return <Shifts shop={shop} />
    case 'people':
      return <People shop={shop} />
    case 'prints':
      return <Prints shop={shop} />
    case 'bring':
      return <BringIn shop={shop} />
    case 'holds':
      return isLead ? <Holds /> : <p className="said">Leads see this.</p>
    case 'site':
      return (
        <>
          <SiteForm shop={shop} />
          <Reach />
        </>
      )
    default:
      return <Places shop={shop} />
  }
}
