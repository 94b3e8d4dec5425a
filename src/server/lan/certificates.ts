import { DAY_MS } from '@core/units/time.ts'
import { createHash, randomBytes, X509Certificate } from 'node:crypto'
import { chmodSync, existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { isIP } from 'node:net'
import { join } from 'node:path'
import forge from 'node-forge'

/**
 * A certificate authority of this installation's own, made at its first start on the network, and a certificate of this machine
 * signed by it. Phones are told once to trust the authority; the machine's certificate may change as its addresses do.
 *
 * 1. The authority is made once and kept: what phones trust stays good.
 * 2. Its key never leaves the folder, which only the owner may read.
 * 3. The machine's certificate is made anew when an address is missing from it or it has under a month to run.
 */
export interface Pair {
  keyPem: string
  certPem: string
}
const AUTHORITY_DAYS = 3650
/** Phones refuse certificates of machines that run longer. */
const MACHINE_DAYS = 397
const RENEW_MS = 30 * DAY_MS
const AUTHORITY_NAME = 'Idle Spool, this shop'

const pathsOf = (folder: string, name: string) => ({
  key: join(folder, `${name}.key.pem`),
  cert: join(folder, `${name}.cert.pem`),
})

function keep(folder: string, name: string, pair: Pair): Pair {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  chmodSync(folder, 0o700)
  const paths = pathsOf(folder, name)
  // The key last: a pair is there when its key is, and a cut start leaves none by halves.
  for (const [path, text] of [
    [paths.cert, pair.certPem],
    [paths.key, pair.keyPem],
  ] as const) {
    writeFileSync(`${path}.new`, text, { mode: 0o600 })
    renameSync(`${path}.new`, path)
  }
  return pair
}

function kept(folder: string, name: string): Pair | null {
  const paths = pathsOf(folder, name)
  if (!existsSync(paths.key) || !existsSync(paths.cert)) return null
  return { keyPem: readFileSync(paths.key, 'utf8'), certPem: readFileSync(paths.cert, 'utf8') }
}

/** The authority in a folder, made when there is none. */
export function ensureAuthority(folder: string, nowMs: number): Pair {
  const known = kept(folder, 'authority')
  if (known) return known
  const keys = forge.pki.rsa.generateKeyPair(2048)
  const subject = [{ name: 'commonName', value: AUTHORITY_NAME }]
  const certPem = signed({
    publicKey: keys.publicKey,
    signer: keys.privateKey,
    subject,
    issuer: subject,
    nowMs,
    days: AUTHORITY_DAYS,
    extensions: [
      { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
      { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
      { name: 'subjectKeyIdentifier' },
    ],
  })
  return keep(folder, 'authority', { keyPem: forge.pki.privateKeyToPem(keys.privateKey), certPem })
}

/** This machine's certificate for all its names and addresses. */
export function ensureMachine(folder: string, names: readonly string[], nowMs: number): Pair {
  const authority = ensureAuthority(folder, nowMs)
  const known = kept(folder, 'machine')
  if (known && isGood(known, { names, nowMs, authority })) return known
  const keys = forge.pki.rsa.generateKeyPair(2048)
  const issuer = forge.pki.certificateFromPem(authority.certPem)
  const certPem = signed({
    publicKey: keys.publicKey,
    signer: forge.pki.privateKeyFromPem(authority.keyPem),
    subject: [{ name: 'commonName', value: names[0] ?? 'localhost' }],
    issuer: issuer.subject.attributes,
    nowMs,
    days: MACHINE_DAYS,
    extensions: [
      { name: 'basicConstraints', cA: false },
      { name: 'keyUsage', digitalSignature: true, keyEncipherment: true, critical: true },
      { name: 'extKeyUsage', serverAuth: true },
      { name: 'subjectAltName', altNames: names.map((n) => (isIP(n) ? { type: 7, ip: n } : { type: 2, value: n })) },
    ],
  })
  return keep(folder, 'machine', { keyPem: forge.pki.privateKeyToPem(keys.privateKey), certPem })
}

function isGood(pair: Pair, at: { names: readonly string[]; nowMs: number; authority: Pair }): boolean {
  try {
    const cert = new X509Certificate(pair.certPem)
    const isNamed = at.names.every((n) => (isIP(n) ? cert.checkIP(n) : cert.checkHost(n)) !== undefined)
    const isOurs = cert.verify(new X509Certificate(at.authority.certPem).publicKey)
    return isNamed && isOurs && Date.parse(cert.validTo) > at.nowMs + RENEW_MS
  } catch {
    // A file that is no certificate is as good as none.
    return false
  }
}

interface Signing {
  publicKey: forge.pki.rsa.PublicKey
  signer: forge.pki.rsa.PrivateKey
  subject: forge.pki.CertificateField[]
  issuer: forge.pki.CertificateField[]
  nowMs: number
  days: number
  extensions: object[]
}

function signed(what: Signing): string {
  const cert = forge.pki.createCertificate()
  cert.publicKey = what.publicKey
  // Positive, and never the same twice: the top bit stays clear.
  cert.serialNumber = `01${randomBytes(15).toString('hex')}`
  // A day back: clocks of phones and servers differ.
  cert.validity.notBefore = new Date(what.nowMs - DAY_MS)
  cert.validity.notAfter = new Date(what.nowMs + (what.days - 1) * DAY_MS)
  cert.setSubject(what.subject)
  cert.setIssuer(what.issuer)
  cert.setExtensions(what.extensions)
  cert.sign(what.signer, forge.md.sha256.create())
  return forge.pki.certificateToPem(cert)
}

/** The authority's fingerprint, as phones show it: compared by eye before it is trusted. */
export function fingerprintOf(certPem: string): string {
  const hash = createHash('sha256').update(new X509Certificate(certPem).raw).digest('hex').toUpperCase()
  return (hash.match(/../g) ?? []).join(' ')
}
