import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { type StockPart } from '@contract/stock.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useShop } from '@web/shopmodel/queries.ts'
import { useIssue } from '@web/rightparts/queries.ts'

/** Over the counter for a gun: what does not fit it is refused, with what does. */
export function HandOut({ part }: { part: StockPart }) {
  const shop = useShop()
  const issue = useIssue()
  const [place, setPlace] = useState('')
  const stations = shop.data?.stations ?? []
  const station = stations.find((s) => s.name.toLowerCase() === place.trim().toLowerCase())
  const send = (event: React.FormEvent) => {
    event.preventDefault()
    if (!station) return
    issue.mutate({ stationId: station.id, partId: part.partId, quantity: 1 }, { onSuccess: () => setPlace('') })
  }
  return (
    <form className="stock-count" noValidate onSubmit={send}>
      <Form.Group controlId="stock-out">
        <Form.Label>one out, for the gun at</Form.Label>
        <Form.Control
          value={place}
          list="stock-places"
          autoComplete="off"
          onChange={(e) => {
            issue.reset()
            setPlace(e.target.value)
          }}
        />
        <datalist id="stock-places">
          {stations.map((s) => (
            <option key={s.id} value={s.name} />
          ))}
        </datalist>
      </Form.Group>
      <Button type="submit" variant="outline-chalk" disabled={!station || issue.isPending}>
        Hand out
      </Button>
      {place.trim() !== '' &&
      !station &&
      stations.every((s) => !s.name.toLowerCase().startsWith(place.trim().toLowerCase())) ? (
        <p className="small-print">There is no place called “{place.trim()}”.</p>
      ) : null}
      <Trouble problem={issue.error} />
      {issue.isSuccess && place === '' ? (
        <p className="small-print" role="status">
          Handed out.
        </p>
      ) : null}
    </form>
  )
}
