import { fork } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { isPhoto, Recoding } from './recode.ts'

/** A stand-in for the process that encodes: what it does is what the bytes say. */
const CHILD = `process.on('message', (bytes) => {
  const said = Buffer.from(bytes).toString()
  if (said === 'hang') for (;;);
  if (said === 'die') process.exit(1)
  if (said === 'bad') return process.send({ problem: 'no' })
  process.send({ recoded: { widthPx: process.pid, heightPx: 1, jpeg: said, small: '' } })
})`
let folder: string
let opened = 0
const make = () =>
  new Recoding(() => {
    opened++
    return fork(join(folder, 'child.mjs'), { serialization: 'advanced', execArgv: [], stdio: 'ignore' })
  }, 1500)
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'recode-'))
  writeFileSync(join(folder, 'child.mjs'), CHILD)
})
afterAll(() => rmSync(folder, { recursive: true }))
const bytes = (text: string) => Buffer.from(text)

describe('encoding photos in a process of their own', () => {
  it('does one after the other in one process', async () => {
    opened = 0
    const recoding = make()
    const all = await Promise.all(['a', 'b', 'c'].map((text) => recoding.recode(bytes(text))))
    expect(all.map((r) => r.jpeg)).toEqual(['a', 'b', 'c'])
    expect(opened).toBe(1)
  })
  it.each(['hang', 'die'])('%s: that one is refused, and the next one is kept by a new process', async (what) => {
    opened = 0
    const recoding = make()
    const bad = recoding.recode(bytes(what))
    const next = recoding.recode(bytes('good'))
    await expect(bad).rejects.toMatchObject({ code: 'sheet-refused' })
    expect((await next).jpeg).toBe('good')
    expect(opened).toBe(2)
  })
  it('what can’t be read is refused and the process goes on', async () => {
    opened = 0
    const recoding = make()
    await expect(recoding.recode(bytes('bad'))).rejects.toMatchObject({ code: 'sheet-refused' })
    expect((await recoding.recode(bytes('good'))).jpeg).toBe('good')
    expect(opened).toBe(1)
  })
  it('of very many at once the last are told to come again', async () => {
    const recoding = make()
    const many = await Promise.allSettled(Array.from({ length: 14 }, (_, i) => recoding.recode(bytes(String(i)))))
    expect(many.map((m) => m.status)).toEqual([
      ...Array<string>(12).fill('fulfilled'),
      ...Array<string>(2).fill('rejected'),
    ])
    expect(many[13]).toMatchObject({ reason: { code: 'busy' } })
  })
})
it.each([
  ['ff d8 ff e0 00', true],
  ['89 50 4e 47 0d 0a 1a 0a 00', true],
  ['52 49 46 46 00 00 00 00 57 45 42 50', true],
  ['52 49 46 46 00 00 00 00 41 56 49 20', false],
  ['3c 73 76 67', false],
  ['', false],
])('%s begins as a photo: %s', (hex, is) => expect(isPhoto(Buffer.from(hex.replaceAll(' ', ''), 'hex'))).toBe(is))
