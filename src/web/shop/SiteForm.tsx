import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { type ShopAnswer } from '@contract/shop.ts'
import { Trouble } from '@web/shell/Trouble.tsx'
import { useSave } from './queries.ts'

export function SiteForm({ shop }: { shop: ShopAnswer }) {
  const save = useSave('/shop/site')
  const [site, setSite] = useState(shop.site)
  return (
    <Form className="built-form" onSubmit={(e) => { e.preventDefault(); save.mutate(site) }}>
      <Form.Group controlId="st-name"><Form.Label>the shop is called</Form.Label><Form.Control value={site.name} onChange={(e) => setSite({ ...site, name: e.target.value })} /></Form.Group>
      <Form.Group controlId="st-zone"><Form.Label>time zone</Form.Label><Form.Control value={site.zone} onChange={(e) => setSite({ ...site, zone: e.target.value })} /></Form.Group>
      <Form.Group controlId="st-units"><Form.Label>units</Form.Label><Form.Select value={site.units} onChange={(e) => setSite({ ...site, units: e.target.value === 'us' ? 'us' : 'metric' })}><option value="metric">mm, kg</option><option value="us">inch, lb</option></Form.Select></Form.Group>
      <Form.Group controlId="st-cur"><Form.Label>currency, three letters</Form.Label><Form.Control maxLength={3} value={site.currency} onChange={(e) => setSite({ ...site, currency: e.target.value.toUpperCase() })} /></Form.Group>
      <Trouble problem={save.error} />
      <div className="built-keys"><Button type="submit" variant="chalk" disabled={!site.name.trim() || site.currency.length !== 3}>Save</Button><span className="small-print" role="status">{save.isSuccess ? 'Saved.' : ''}</span></div>
    </Form>
  )
}
