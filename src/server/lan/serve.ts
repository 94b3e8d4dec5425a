import { createServer as createPlain, type RequestListener, type Server } from 'node:http'
import { createServer as createSecure, type Server as SecureServer } from 'node:https'
import { lanAddresses, machineNames } from './addresses.ts'
import { ensureAuthority, ensureMachine, fingerprintOf, type Pair } from './certificates.ts'
import { trustApp } from './trust.ts'

export interface LanPorts {
  /** HTTPS, for everybody on the network. */
  secure: number
  /** Plain: the trust page and nothing else. */
  trust: number
  /** Plain, this machine only: its own equipment and tools. */
  local: number
}
export interface Lan {
  addresses: string[]
  /** Where it listens: what was asked for, or for a 0 the one the machine gave. */
  ports: LanPorts
  fingerprint: string
  close: () => void
}
const LOOK_AGAIN_MS = 10 * 60_000
const EVERYWHERE = '0.0.0.0'

/**
 *   phone ──http──> trust page (certificate, how to trust it)
 *   phone ──https─> program
 *   this machine ──http, loopback──> program
 */
export async function serveLan(app: RequestListener, at: { folder: string; ports: LanPorts }): Promise<Lan> {
  const { folder, ports } = at
  const authority = await ensureAuthority(folder, Date.now())
  const pair = () => ensureMachine(folder, machineNames(lanAddresses()), Date.now())
  const first = await pair()
  const secure = createSecure({ key: first.keyPem, cert: first.certPem }, app)
  const fingerprint = fingerprintOf(authority.certPem)
  const securePort = await listen(secure, ports.secure, EVERYWHERE)
  const trust = createPlain(trustApp({ certPem: () => authority.certPem, fingerprint: () => fingerprint, securePort }))
  const local = createPlain(app)
  const [trustPort, localPort] = await Promise.all([
    listen(trust, ports.trust, EVERYWHERE),
    listen(local, ports.local, '127.0.0.1'),
  ])
  const timer = setInterval(() => void renew(secure, pair), LOOK_AGAIN_MS)
  return {
    addresses: lanAddresses(),
    fingerprint,
    ports: { secure: securePort, trust: trustPort, local: localPort },
    close: () => {
      clearInterval(timer)
      for (const server of [secure, trust, local]) {
        server.close()
        server.closeAllConnections()
      }
    },
  }
}

/** An address given by the network may change while the program runs; the next connection gets a certificate that names it. */
async function renew(server: SecureServer, pair: () => Promise<Pair>): Promise<void> {
  const { keyPem, certPem } = await pair()
  server.setSecureContext({ key: keyPem, cert: certPem })
}

function listen(server: Server | SecureServer, port: number, host: string): Promise<number> {
  return new Promise((done, fail) => {
    server.once('error', fail)
    server.listen(port, host, () => {
      const address = server.address()
      done(typeof address === 'object' && address ? address.port : port)
    })
  })
}
