import { useEffect, useRef } from 'react'
import { Link, Navigate, useLocation } from 'react-router'
import { BY_CARD } from '@web/gunnow/bycard.ts'
import { useMe } from '@web/people/queries.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { scanSentence } from './scanwords.ts'
import { openedBy } from './opened.ts'
import { useScan } from './useScan.ts'

/** Where a printed code leads a phone's own camera: what it stands for is done at once, once. */
export function GoPage() {
  const { pathname, key } = useLocation()
  const me = useMe()
  const scan = useScan()
  const isKnown = Boolean(me.data?.person ?? me.data?.device)
  const sent = useRef('')
  const { mutate } = scan
  useEffect(() => {
    if (!isKnown || sent.current === pathname) return
    sent.current = pathname
    mutate({ code: pathname, key: keyOf(pathname, key) })
  }, [isKnown, pathname, key, mutate])
  // A card that says only which gun: its page, at once.
  if (scan.data?.said === 'open') return <Navigate replace to={openedBy(scan.data)} state={BY_CARD} />
  return (
    <main className="narrow scan-said">
      <div role="status">{scan.data ? <h1>{scanSentence(scan.data)}</h1> : null}</div>
      <Trouble problem={scan.error} />
      {scan.isPending ? <p className="dim">Reading the code …</p> : null}
      {scan.data ? (
        <p>
          <Link to={`/gun/${scan.data.stationId}`}>open {scan.data.stationName}</Link>
        </p>
      ) : null}
      <p>
        <Link to="/">Floor</Link>
      </p>
    </main>
  )
}

/** Loading the page again is the same scan: its key stays with this visit. */
function keyOf(pathname: string, visit: string): string {
  const name = `scan ${visit} ${pathname}`
  const kept = sessionStorage.getItem(name) ?? crypto.randomUUID()
  sessionStorage.setItem(name, kept)
  return kept
}
