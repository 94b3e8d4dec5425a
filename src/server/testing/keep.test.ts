import { spawn, type ChildProcess } from 'node:child_process'
import { existsSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'

/** What keeps the program up, and the locks that say whose a folder is. */
const at = (name: string) => pathToFileURL(fileURLToPath(new URL(`../../../scripts/lib/${name}`, import.meta.url))).href
interface Keep {
  keepUp: (of: {
    start: () => ChildProcess
    onAgain?: (told: { pauseMs: number }) => void
    onGiveUp: (code: number) => void
    pauses: Record<'firstMs' | 'mostMs' | 'steadyMs' | 'most', number>
  }) => { begin: () => Promise<void>; pid: () => number | null; stop: (end: (pid: number) => unknown) => Promise<void> }
}
interface Lock {
  lockFile: (
    path: string,
    how?: { how?: string; waitMs?: number },
  ) => Promise<{ release: () => void; alone: () => boolean } | null>
}
let keep: Keep
let lock: Lock
let folder: string
beforeAll(async () => {
  keep = (await import(/* @vite-ignore */ at('keep.mjs'))) as Keep
  lock = (await import(/* @vite-ignore */ at('lock.mjs'))) as Lock
  folder = mkdtempSync(join(tmpdir(), 'keep-'))
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))
const run = (script: string) => spawn(process.execPath, ['-e', script], { stdio: 'ignore' })
const pauses = { firstMs: 5, mostMs: 20, steadyMs: 60_000, most: 4 }

describe('a process that is kept up', () => {
  it('is started again when it ends, with pauses that grow, until it ends too often', async () => {
    const again: number[] = []
    const code = await new Promise<number>((done) => {
      const kept = keep.keepUp({
        start: () => run('process.exit(7)'),
        onAgain: ({ pauseMs }) => again.push(pauseMs),
        onGiveUp: done,
        pauses,
      })
      void kept.begin()
    })
    expect(code).toBe(7)
    expect(again).toEqual([5, 10, 20, 20])
  })
  it('killed is another one soon, and stopped on purpose stays so', async () => {
    const gaveUp = vi.fn()
    const kept = keep.keepUp({ start: () => run('setInterval(() => {}, 1000)'), onGiveUp: gaveUp, pauses })
    await kept.begin()
    const first = kept.pid() ?? 0
    process.kill(first, 'SIGKILL')
    await vi.waitFor(() => expect(kept.pid()).not.toBeNull())
    await vi.waitFor(() => expect(kept.pid()).not.toBe(first))
    await kept.stop((pid) => process.kill(pid, 'SIGKILL'))
    await vi.waitFor(() => expect(kept.pid()).toBeNull())
    await new Promise((done) => setTimeout(done, 60))
    expect(kept.pid()).toBeNull()
    expect(gaveUp).not.toHaveBeenCalled()
  })
})

describe('a lock on a file', () => {
  it('is one’s alone until it is given back, by whatever way its holder ends', async () => {
    const path = join(folder, 'a.lock')
    const mine = await lock.lockFile(path)
    expect(mine).not.toBeNull()
    expect(await lock.lockFile(path)).toBeNull()
    mine?.release()
    const other = run(
      `import(${JSON.stringify(at('lock.mjs'))}).then((m) => m.lockFile(${JSON.stringify(path)})).then(() => { require('fs').writeFileSync(${JSON.stringify(join(folder, 'has'))}, ''); setInterval(() => {}, 1000) })`,
    )
    await vi.waitFor(() => expect(existsSync(join(folder, 'has'))).toBe(true), { timeout: 10_000 })
    expect(await lock.lockFile(path)).toBeNull()
    other.kill('SIGKILL')
    const after = await lock.lockFile(path, { waitMs: 5000 })
    expect(after).not.toBeNull()
    after?.release()
  })
  it('shared by many is alone only for the last', async () => {
    const path = join(folder, 'b.lock')
    const [one, two] = await Promise.all([0, 1].map(() => lock.lockFile(path, { how: 'shared' })))
    expect(one?.alone()).toBe(false)
    two?.release()
    expect(one?.alone()).toBe(true)
    expect(await lock.lockFile(path, { how: 'shared' })).toBeNull()
    one?.release()
  })
})
