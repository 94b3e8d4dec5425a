import { Bare, Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Link, NavLink, Outlet, useLocation, useNavigate } from 'react-router'
import { HoldLine } from '@web/shop/HoldLine.tsx'
import { useMe, useSignOut } from '@web/people/queries.ts'
import { ActStrip, Flash } from '@web/log/ActStrip.tsx'
import { useChanges, useLinkLost } from '@web/live/useChanges.ts'
import { clockTime } from '@web/format/times.ts'
import { QueueLine } from '@web/offline/QueueLine.tsx'
import { useHoldArea } from '@web/device/useHoldArea.ts'
import { useQueueRuns } from '@web/offline/device.ts'
import { useOutbox } from '@web/photo/keeping.ts'
import { Wedge } from '@web/scan/Wedge.tsx'
import { sectionsFor } from '@web/sections/sections.ts'
import { Find } from './Find.tsx'
import { Help } from './Help.tsx'
import { useShortcuts } from '@web/kit/useShortcuts.ts'
import { useTheme } from './useTheme.ts'

/** The frame of every screen: section words on one line, or three targets at the foot of a phone. */
export function Shell() {
  const me = useMe()
  const place = useLocation()
  const go = useNavigate()
  const [open, setOpen] = useState<'find' | 'down' | 'help' | null>(null)
  const isKnown = Boolean(me.data?.person ?? me.data?.device)
  useChanges(isKnown)
  useQueueRuns()
  useOutbox()
  useHoldArea()
  useShortcuts(
    { '/': () => setOpen('find'), '?': () => setOpen('help'), f: () => go('/'), l: () => go('/logbook') },
    open === null,
  )
  const isOpenPage = place.pathname.startsWith('/sign-in') || place.pathname.startsWith('/link')
  if (me.data && !isKnown && !isOpenPage) return <Stranger isNew={me.data.isNew} />
  return (
    <>
      <LinkStrip zone={me.data?.zone ?? 'UTC'} />
      {isKnown && !place.search.includes('at=') && place.pathname !== '/device' ? <QueueLine /> : null}
      {/* Before it is known who asks, the frame stands already: neither a slow answer nor a refused one leaves a blank page. */}
      {isKnown || (!me.data && !isOpenPage) ? (
        <Head onFind={() => setOpen('find')} onHelp={() => setOpen('help')} />
      ) : null}
      <HoldLine />
      <Outlet />
      <ActStrip />
      {isKnown ? <Wedge /> : null}
      <Flash />
      {isKnown ? <Foot onFind={() => setOpen('find')} onDown={() => setOpen('down')} /> : null}
      <Find isOpen={open === 'find' || open === 'down'} isDown={open === 'down'} onClose={() => setOpen(null)} />
      <Help isOpen={open === 'help'} onClose={() => setOpen(null)} />
    </>
  )
}

function Head({ onFind, onHelp }: { onFind: () => void; onHelp: () => void }) {
  const me = useMe()
  const signOut = useSignOut()
  const [theme, flip] = useTheme()
  const who = me.data?.person?.name ?? me.data?.device?.name
  return (
    <header className="shell-head">
      <nav aria-label="Sections">
        {sectionsFor(me.data).map((s) => (
          <NavLink key={s.to} to={s.to} end={s.to === '/'}>
            {s.name}
          </NavLink>
        ))}
      </nav>
      <span className="shell-place dim">{me.data?.shopName}</span>
      <Bare onClick={onFind} aria-label="find a gun">
        <kbd>/</kbd> <span className="shell-word">find a gun</span>
      </Bare>
      <Bare onClick={flip}>{theme === 'dark' ? 'light' : 'dark'}</Bare>
      <Bare onClick={onHelp} aria-label="What this page answers, keys and words">
        <kbd>?</kbd>
      </Bare>
      {!me.data ? null : me.data.person ? (
        <Bare onClick={() => signOut.mutate(undefined)}>
          <span className="shell-word">{who}: </span>sign out
        </Bare>
      ) : (
        <Link to="/sign-in" className="bare">
          {who ? `${who}: ` : ''}sign in
        </Link>
      )}
    </header>
  )
}

/** On a phone: where the thumb is. A gun's own page and a walk have their own foot. */
function Foot({ onFind, onDown }: { onFind: () => void; onDown: () => void }) {
  const place = useLocation()
  const params = new URLSearchParams(place.search)
  const isWalking =
    (['/look', '/down', '/tune'].includes(place.pathname) && params.has('gun')) ||
    (['/change', '/guide', '/liner', '/walk'].includes(place.pathname) && params.has('at'))
  if (place.pathname.startsWith('/gun/') || isWalking) return null
  return (
    <footer className="shell-foot">
      <Key tone="chalk" onClick={onFind}>
        Find a gun
      </Key>
      {place.pathname === '/' ? (
        <Key onClick={onDown}>It’s down</Key>
      ) : (
        <Link className="key" to="/">
          Floor
        </Link>
      )}
    </footer>
  )
}

function LinkStrip({ zone }: { zone: string }) {
  const lostMs = useLinkLost()
  if (lostMs === null) return null
  return (
    <div className="strip strip-top" role="status">
      No link since {clockTime(lostMs, zone)}. What you see is from then.
    </div>
  )
}

function Stranger({ isNew }: { isNew: boolean }) {
  return (
    <main className="narrow">
      <h1>{isNew ? 'No shop here yet' : 'This device belongs to no place yet'}</h1>
      <p className="said dim">
        {isNew
          ? 'It takes a minute: the shop’s name, a lead, and the numbers painted on the guns.'
          : 'Ask the lead for a link that binds it to its booth or hall, or sign in.'}
      </p>
      <Link className="btn btn-chalk" to="/sign-in">
        {isNew ? 'Begin' : 'Sign in'}
      </Link>
    </main>
  )
}
