import express, { type Express } from 'express'
import helmet from 'helmet'
import { X509Certificate } from 'node:crypto'
import { isOurs } from '@server/http/hosts.ts'

/** What the plain page needs to know: the authority, its fingerprint, and where the program itself is. */
export interface Trust {
  certPem: () => string
  fingerprint: () => string
  securePort: number
}
const FILE = 'idle-spool-authority.crt'

/**
 * The only thing served without encryption: how a phone comes to trust this shop's own authority. Nothing of the shop is in it,
 * no cookie is taken or given, and every other address leads to the encrypted one.
 */
export function trustApp(trust: Trust): Express {
  const app = express()
  app.disable('x-powered-by')
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: { 'default-src': ["'none'"], 'style-src': ["'unsafe-inline'"], 'upgrade-insecure-requests': null },
      },
      hsts: false,
    }),
  )
  // A name that is not this machine's leads nowhere.
  app.use((req, res, next) => (isOurs(req.hostname ?? '') ? next() : res.sendStatus(421)))
  app.get(`/${FILE}`, (_req, res) => {
    res.setHeader('content-type', 'application/x-x509-ca-cert')
    res.setHeader('content-disposition', `attachment; filename="${FILE}"`)
    res.send(new X509Certificate(trust.certPem()).raw)
  })
  app.get('/', (req, res) => {
    res.setHeader('cache-control', 'no-store')
    res.type('html').send(trustPage(secureUrl(req.hostname, trust.securePort), trust.fingerprint()))
  })
  app.get('/{*path}', (req, res) => res.redirect(302, `${secureUrl(req.hostname, trust.securePort)}${req.originalUrl}`))
  return app
}

const secureUrl = (host: string, port: number) => `https://${host.includes(':') ? `[${host}]` : host}:${port}`
const escaped = (text: string) => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`)

export function trustPage(url: string, fingerprint: string): string {
  const at = escaped(url)
  return `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Idle Spool on this device</title>
<style>
  body { background: #1e2225; color: #e9e5d8; font: 1.1rem/1.45 sans-serif; margin: 0 auto; max-width: 36rem; padding: 1.5rem 1.2rem 4rem; }
  h1 { font-size: 1.6rem; } h2 { font-size: 1.15rem; margin: 1.8rem 0 .3rem; }
  a { color: inherit; } .key { background: #e9e5d8; color: #1a1d20; display: block; font-weight: 700; margin: .8rem 0; padding: 1.6rem 1rem; text-align: center; text-decoration: none; }
  code { background: #272c30; display: block; overflow-wrap: anywhere; padding: .6rem; } li { margin: .3rem 0; }
</style>
<h1>Let this device trust the shop’s own line</h1>
<p>Once per phone or tablet. After that the camera scans, and the page may stay on it.</p>
<h2>1. Fetch the certificate</h2>
<a class="key" href="/${FILE}">Fetch it</a>
<h2>2. Compare</h2>
<p>The device shows a SHA-256 fingerprint. It must be the same as here and in the window where the program was started. If it is not, stop and ask the lead.</p>
<code>${escaped(fingerprint)}</code>
<h2>3. Trust it</h2>
<ul>
<li>Where certificates are kept under “security”: install it there as a CA certificate.</li>
<li>Where it comes as a profile: install the profile, then switch on full trust for it among the trusted certificates.</li>
<li>On a computer: add it to the authorities the browser trusts for web sites.</li>
</ul>
<p>It can be taken off again in the same place. Trust it only on devices that belong to the shop.</p>
<h2>4. Open the program</h2>
<a class="key" href="${at}">${at}</a>
</html>
`
}
