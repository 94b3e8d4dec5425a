import { PickField, TextField } from '@web/kit/Field.tsx'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { parseNumber } from '@core/units/number.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

export function SiteForm({ shop }: { shop: ShopAnswer }) {
  const save = useSave('/shop/site')
  const [site, setSite] = useState(shop.site)
  const [gas, setGas] = useState(shop.site.gasMinorPerM3 === null ? '' : String(shop.site.gasMinorPerM3 / 100))
  const gasMinor = gas.trim() ? parseNumber(gas) : null
  return (
    <Form
      className="built-form"
      onSubmit={(e) => {
        e.preventDefault()
        save.mutate({ ...site, gasMinorPerM3: gasMinor === null ? null : Math.round(gasMinor * 100) })
      }}
    >
      <TextField
        id="st-name"
        label="the shop is called"
        value={site.name}
        onChange={(e) => setSite({ ...site, name: e.target.value })}
      />
      <TextField
        id="st-zone"
        label="time zone"
        value={site.zone}
        onChange={(e) => setSite({ ...site, zone: e.target.value })}
      />
      <PickField
        id="st-units"
        label="units"
        value={site.units}
        onChange={(e) => setSite({ ...site, units: e.target.value === 'us' ? 'us' : 'metric' })}
      >
        <option value="metric">mm, kg</option>
        <option value="us">inch, lb</option>
      </PickField>
      <TextField
        id="st-cur"
        label="currency, three letters"
        maxLength={3}
        value={site.currency}
        onChange={(e) => setSite({ ...site, currency: e.target.value.toUpperCase() })}
      />
      <TextField
        id="st-gas"
        label={`a cubic metre of gas, ${site.currency}`}
        inputMode="decimal"
        value={gas}
        onChange={(e) => setGas(e.target.value)}
      />
      <Trouble problem={save.error} />
      <div className="built-keys">
        <Button
          type="submit"
          variant="chalk"
          disabled={!site.name.trim() || site.currency.length !== 3 || (gas.trim() !== '' && gasMinor === null)}
        >
          Save
        </Button>
        <span className="small-print" role="status">
          {save.isSuccess ? 'Saved.' : ''}
        </span>
      </div>
      <p className="built-keys">
        <a className="btn" href="/api/shop/whole.jsonl" download>
          everything as one file
        </a>
        <span className="small-print">
          The whole shop with its history. An empty shop takes it in on its first page. Keep it like a key: people’s
          sign-ins are in it.
        </span>
      </p>
    </Form>
  )
}
