import { Button } from 'react-bootstrap'
import { useScan, useWedge } from './useScan.ts'
import { scanSentence } from './scanwords.ts'

/** Listens for a scanner on every screen. A logged act shows in the strip; what was not logged says why here. */
export function Wedge() {
  const scan = useScan()
  useWedge((code) => scan.mutate({ code }))
  const text = scan.error
    ? scan.error.message
    : scan.data && !['logged', 'open', 'gunHere'].includes(scan.data.said)
      ? scanSentence(scan.data)
      : ''
  if (!text) return null
  return (
    <div className="wedge-said" role="alert">
      <span>{text}</span>
      <Button variant="" onClick={() => scan.reset()}>
        ok
      </Button>
    </div>
  )
}
