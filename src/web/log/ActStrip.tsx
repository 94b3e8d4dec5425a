import { useEffect, useRef, useState, type RefObject } from 'react'
import { Button } from 'react-bootstrap'
import { useMe } from '@web/people/queries.ts'
import { newKey } from '@web/api/client.ts'
import { amount, type Units } from '@web/format/numbers.ts'
import { clockTime } from '@web/format/times.ts'
import { donePhrase } from '@web/format/words.ts'
import { takeBack, useQueue } from '@web/offline/device.ts'
import { canTakeBack } from '@web/offline/queue.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { keepLast, useLast, type LastLogged } from '@web/offline/last.ts'
import { MoveAct } from './MoveAct.tsx'
import { useUndo } from './queries.ts'

/** "That one did 5.8 h. Usual here 5.2." Silent about what is not known. */
export function payBackLine(last: LastLogged, units: Units): string {
  const [one] = last.logged
  if (!one || last.logged.length > 1 || one.didAmount === null || !one.unit) return ''
  const usual = one.usualAmount === null ? '' : ` Usual here ${amount(one.usualAmount, one.unit, units)}.`
  return `That one did ${amount(one.didAmount, one.unit, units)}.${usual}`
}

export function lastTitle(last: LastLogged): string {
  if (last.kept) return `${last.kept.says} · kept on this device`
  const [act] = last.acts
  const phrase = donePhrase(act?.act ?? '', act?.position ?? null)
  return last.logged.length > 1
    ? `${phrase} on ${last.logged.length} guns`
    : `${phrase} · ${last.logged[0]?.stationName ?? ''}`
}

/** What was logged last stays here, with its undo, until the next act. */
export function ActStrip() {
  const last = useLast()
  const me = useMe()
  const undo = useUndo()
  const [isMoving, setMoving] = useState(false)
  const strip = useRef<HTMLElement>(null)
  useStripHeight(strip, last !== null)
  if (!last) return null
  const units = me.data?.units ?? 'metric'
  const [one] = last.logged
  const isOne = last.logged.length === 1 && one
  return (
    <aside ref={strip} className="act-strip" aria-label="Last logged">
      <span>
        <strong>{lastTitle(last)}</strong> <span className="dim">{clockTime(last.atMs, me.data?.zone ?? 'UTC')}</span>
      </span>
      <span role="status">{payBackLine(last, units)}</span>
      <Trouble problem={undo.error} />
      <span className="acts">
        {last.kept ? <TakeBack entryKey={last.kept.key} /> : null}
        {last.logged.length > 0 ? (
          <Button
            onClick={() => undo.mutate({ key: newKey(), eventIds: last.logged.map((l) => l.eventId) })}
            disabled={undo.isPending}
          >
            Undo
          </Button>
        ) : null}
        {isOne ? <Button onClick={() => setMoving(true)}>not {one.stationName}</Button> : null}
        <Button onClick={() => keepLast(null)} aria-label="Put this line away">
          ok
        </Button>
      </span>
      {isMoving && isOne ? <MoveAct logged={one} onDone={() => setMoving(false)} /> : null}
    </aside>
  )
}

/** The feet of pages stand above the strip, whatever its height: nothing of theirs is hidden under it. */
function useStripHeight(strip: RefObject<HTMLElement | null>, isThere: boolean) {
  useEffect(() => {
    if (!strip.current) return
    const { style } = document.documentElement
    const watch = new ResizeObserver(() => style.setProperty('--strip-height', `${strip.current?.offsetHeight ?? 0}px`))
    watch.observe(strip.current)
    return () => {
      watch.disconnect()
      style.removeProperty('--strip-height')
    }
  }, [strip, isThere])
}

/** Taken back while it is on this device only. */
function TakeBack({ entryKey }: { entryKey: string }) {
  const queue = useQueue()
  if (!canTakeBack(queue, entryKey)) return null
  return (
    <Button onClick={() => void takeBack(entryKey).then((isTaken) => (isTaken ? keepLast(null) : undefined))}>
      Undo
    </Button>
  )
}

const FLASH_MS = 400

/** The whole screen answers at arm's length, then it is gone. */
export function Flash() {
  const last = useLast()
  const [shownMs, setShownMs] = useState(0)
  const atMs = last?.atMs ?? 0
  useEffect(() => {
    if (atMs === 0) return
    const timer = setTimeout(() => setShownMs(atMs), FLASH_MS)
    return () => clearTimeout(timer)
  }, [atMs])
  if (!last || shownMs === atMs) return null
  return (
    <div className="flash" aria-hidden="true">
      {lastTitle(last).toUpperCase()}
    </div>
  )
}
