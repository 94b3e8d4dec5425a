import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { request as ask } from 'node:https'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createPrivateKey, X509Certificate } from 'node:crypto'
import express from 'express'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ensureAuthority, ensureMachine, fingerprintOf } from './certificates.ts'
import { serveLan, type Lan } from './serve.ts'
import { trustPage } from './trust.ts'

/** The shop's own certificate authority, and the line that phones come in by. */
const NOW = Date.now()
const DAY = 86_400_000
const folders: string[] = []
const folder = () => {
  const made = mkdtempSync(join(tmpdir(), 'idle-lan-'))
  folders.push(made)
  return made
}
afterAll(() => folders.forEach((f) => rmSync(f, { recursive: true, force: true })))

describe('the authority', () => {
  it('is made once and kept, in files that only the owner reads', async () => {
    const at = folder()
    const first = await ensureAuthority(at, NOW)
    expect(await ensureAuthority(at, NOW + 400 * DAY)).toEqual(first)
    for (const name of readdirSync(at)) expect(statSync(join(at, name)).mode & 0o077).toBe(0)
    const cert = new X509Certificate(first.certPem)
    expect(cert.ca).toBe(true)
    expect(cert.verify(cert.publicKey)).toBe(true)
    expect(fingerprintOf(first.certPem).replaceAll(' ', ':')).toBe(cert.fingerprint256)
  })
  it('of two installations differ', async () =>
    expect(fingerprintOf((await ensureAuthority(folder(), NOW)).certPem)).not.toBe(
      fingerprintOf((await ensureAuthority(folder(), NOW)).certPem),
    ))
  it('whose key is kept in the form of earlier versions signs on', async () => {
    const at = folder()
    const { keyPem, certPem } = await ensureAuthority(at, NOW)
    const older = createPrivateKey(keyPem).export({ type: 'pkcs1', format: 'pem' })
    writeFileSync(join(at, 'authority.key.pem'), older)
    const cert = new X509Certificate((await ensureMachine(at, ['localhost'], NOW)).certPem)
    expect(cert.verify(new X509Certificate(certPem).publicKey)).toBe(true)
  })
})

describe('the machine’s certificate', () => {
  const NAMES = ['localhost', '127.0.0.1', '10.1.2.3']
  const at = folder()
  it('names every address, is signed by the authority, and runs no longer than phones allow', async () => {
    const cert = new X509Certificate((await ensureMachine(at, NAMES, NOW)).certPem)
    expect(cert.checkIP('10.1.2.3')).toBe('10.1.2.3')
    expect(cert.checkHost('localhost')).toBe('localhost')
    expect(cert.checkIP('10.1.2.4')).toBeUndefined()
    expect(cert.verify(new X509Certificate((await ensureAuthority(at, NOW)).certPem).publicKey)).toBe(true)
    expect(cert.ca).toBe(false)
    expect(Date.parse(cert.validTo) - Date.parse(cert.validFrom)).toBeLessThanOrEqual(398 * DAY)
  })
  it('is kept while it is good, and made anew for a new address, near its end, and when its file is spoilt', async () => {
    const authority = await ensureAuthority(at, NOW)
    const first = await ensureMachine(at, NAMES, NOW)
    expect(await ensureMachine(at, NAMES, NOW + 300 * DAY)).toEqual(first)
    const moved = await ensureMachine(at, [...NAMES, '10.1.2.9'], NOW)
    expect(moved.certPem).not.toBe(first.certPem)
    expect((await ensureMachine(at, NAMES, NOW + 380 * DAY)).certPem).not.toBe(moved.certPem)
    writeFileSync(join(at, 'machine.cert.pem'), 'coffee')
    expect(new X509Certificate((await ensureMachine(at, NAMES, NOW)).certPem).checkIP('10.1.2.3')).toBe('10.1.2.3')
    expect(await ensureAuthority(at, NOW)).toEqual(authority)
  })
})

describe('on the network', () => {
  const at = folder()
  let lan: Lan
  let ports: Lan['ports']
  beforeAll(async () => {
    const app = express()
    app.get('/api/health', (req, res) => void res.json({ secure: req.secure, at: req.protocol }))
    lan = await serveLan(app, { folder: at, ports: { secure: 0, trust: 0, local: 0 } })
    ;({ ports } = lan)
  })
  afterAll(() => lan.close())

  const securely = (options: object) =>
    new Promise<string>((done, fail) => {
      ask({ host: '127.0.0.1', port: ports.secure, path: '/api/health', ...options }, (res) => {
        let text = ''
        res.on('data', (piece: Buffer) => (text += piece.toString())).on('end', () => done(text))
      })
        .on('error', fail)
        .end()
    })
  it('who trusts the authority gets in, encrypted', async () => {
    const ca = readFileSync(join(at, 'authority.cert.pem'))
    expect(JSON.parse(await securely({ ca }))).toEqual({ secure: true, at: 'https' })
  })
  it('who does not, is not asked to believe it', async () =>
    expect(securely({})).rejects.toThrow(/self-signed|unable to verify/))
  it('the plain page gives the certificate and its fingerprint, and nothing of the shop', async () => {
    const page = await fetch(`http://127.0.0.1:${ports.trust}/`)
    const text = await page.text()
    expect(text).toContain(lan.fingerprint)
    expect(text).toContain(`https://127.0.0.1:${ports.secure}`)
    expect(page.headers.get('set-cookie')).toBeNull()
    const raw = await (await fetch(`http://127.0.0.1:${ports.trust}/idle-spool-authority.crt`)).arrayBuffer()
    expect(fingerprintOf(new X509Certificate(Buffer.from(raw)).toString())).toBe(lan.fingerprint)
  })
  it('every other plain address leads to the encrypted one', async () => {
    const answer = await fetch(`http://127.0.0.1:${ports.trust}/go/A1/tip-changed?x=1`, { redirect: 'manual' })
    expect(answer.status).toBe(302)
    expect(answer.headers.get('location')).toBe(`https://127.0.0.1:${ports.secure}/go/A1/tip-changed?x=1`)
  })
  it('this machine’s own equipment has a plain door', async () =>
    expect(await (await fetch(`http://127.0.0.1:${ports.local}/api/health`)).json()).toMatchObject({ secure: false }))
  it('a host name that carries markup is only text', () =>
    expect(trustPage('https://<script>x', 'AA')).not.toContain('<script>'))
})
