import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { type StationLine } from '@contract/shop.ts'
import { field, TextField } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useMakeFeeder } from '@web/shopmodel/queries.ts'

/** A feeder that counts by itself: its name and a token, told once, to be typed into it. */
export function FeederToken({ place }: { place: StationLine }) {
  const [equipmentId, setEquipment] = useState('')
  const make = useMakeFeeder()
  return (
    <>
      <h3>A feeder that sends its own counts</h3>
      <div className="built-form">
        <TextField
          id="fd-id"
          label="its serial or name, as it will send it"
          maxLength={40}
          {...field(equipmentId, setEquipment)}
        />
        <Button
          disabled={!equipmentId.trim() || make.isPending}
          onClick={() => make.mutate({ stationId: place.id, equipmentId })}
        >
          Make a token for it
        </Button>
      </div>
      <Trouble problem={make.error} />
      {make.data ? (
        <p className="trouble">
          {make.data.equipmentId} sends to <code>{`${location.origin}/api/ingest`}</code> with the header{' '}
          <code>{`Authorization: Bearer ${make.data.token}`}</code>. The token is told this once; a new one ends it.
        </p>
      ) : null}
    </>
  )
}
