import { DAY_MS } from '@core/units/time.ts'
import { createHash, createPrivateKey, randomBytes, webcrypto, X509Certificate } from 'node:crypto'
import { chmodSync, existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { isIP } from 'node:net'
import { join } from 'node:path'
// What makes certificates wants this first.
import 'reflect-metadata'
import * as x509 from '@peculiar/x509'

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

x509.cryptoProvider.set(webcrypto as Crypto)
const RSA = {
  name: 'RSASSA-PKCS1-v1_5',
  hash: 'SHA-256',
  publicExponent: new Uint8Array([1, 0, 1]),
  modulusLength: 2048,
}
const newKeys = () => webcrypto.subtle.generateKey(RSA, true, ['sign', 'verify'])
/** Also of the older form that earlier versions kept keys in. */
const keyFrom = (pem: string) =>
  webcrypto.subtle.importKey('pkcs8', createPrivateKey(pem).export({ type: 'pkcs8', format: 'der' }), RSA, true, [
    'sign',
  ])
async function pairOf(cert: x509.X509Certificate, key: webcrypto.CryptoKey): Promise<Pair> {
  const raw = await webcrypto.subtle.exportKey('pkcs8', key)
  return { keyPem: `${x509.PemConverter.encode(raw, 'PRIVATE KEY')}\n`, certPem: `${cert.toString('pem')}\n` }
}

/** From a day back: clocks of phones and servers differ. The number is positive and never the same twice. */
const validFor = (nowMs: number, days: number) => ({
  serialNumber: `01${randomBytes(15).toString('hex')}`,
  notBefore: new Date(nowMs - DAY_MS),
  notAfter: new Date(nowMs + (days - 1) * DAY_MS),
  signingAlgorithm: RSA,
})
const { keyCertSign, cRLSign, digitalSignature, keyEncipherment } = x509.KeyUsageFlags

/** The authority in a folder, made when there is none. */
export async function ensureAuthority(folder: string, nowMs: number): Promise<Pair> {
  const known = kept(folder, 'authority')
  if (known) return known
  const keys = await newKeys()
  const cert = await x509.X509CertificateGenerator.createSelfSigned({
    ...validFor(nowMs, AUTHORITY_DAYS),
    name: [{ CN: [AUTHORITY_NAME] }],
    keys,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(keyCertSign | cRLSign, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  })
  return keep(folder, 'authority', await pairOf(cert, keys.privateKey))
}

/** This machine's certificate for all its names and addresses. */
export async function ensureMachine(folder: string, names: readonly string[], nowMs: number): Promise<Pair> {
  const authority = await ensureAuthority(folder, nowMs)
  const known = kept(folder, 'machine')
  if (known && isGood(known, { names, nowMs, authority })) return known
  const keys = await newKeys()
  const issuer = new x509.X509Certificate(authority.certPem)
  const cert = await x509.X509CertificateGenerator.create({
    ...validFor(nowMs, MACHINE_DAYS),
    subject: [{ CN: [names[0] ?? 'localhost'] }],
    issuer: issuer.subjectName,
    publicKey: keys.publicKey,
    signingKey: await keyFrom(authority.keyPem),
    extensions: [
      new x509.BasicConstraintsExtension(false),
      new x509.KeyUsagesExtension(digitalSignature | keyEncipherment, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      new x509.SubjectAlternativeNameExtension(
        names.map((value) => ({ type: isIP(value) ? ('ip' as const) : ('dns' as const), value })),
      ),
      await x509.AuthorityKeyIdentifierExtension.create(issuer),
    ],
  })
  return keep(folder, 'machine', await pairOf(cert, keys.privateKey))
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

/** The authority's fingerprint, as phones show it: compared by eye before it is trusted. */
export function fingerprintOf(certPem: string): string {
  const hash = createHash('sha256').update(new X509Certificate(certPem).raw).digest('hex').toUpperCase()
  return (hash.match(/../g) ?? []).join(' ')
}
