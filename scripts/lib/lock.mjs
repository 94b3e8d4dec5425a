// Locks on files that the kernel keeps: they end with the process that holds them, however it ends, and mean nothing of process ids.
import { spawnSync } from 'node:child_process'
import { closeSync, mkdirSync, openSync } from 'node:fs'
import { dirname } from 'node:path'
import { SetupError, wait } from './machine.mjs'

/** Asks for the lock on an open file; it belongs to the file as this process opened it, not to the helper that asks. */
function ask(fd, how) {
  const done = spawnSync('flock', ['-n', how === 'shared' ? '-s' : '-x', '3'], {
    stdio: ['ignore', 'ignore', 'ignore', fd],
  })
  if (done.error)
    throw new SetupError('This machine lacks "flock" (Debian’s package util-linux). Install it, then run this again.')
  return done.status === 0
}

/**
 * A lock on a file: `exclusive` for one alone, `shared` for many at once. Waits up to `waitMs`; null when others hold it that long.
 * Answers { alone, release }: `alone` asks to hold a shared one alone from now on.
 */
export async function lockFile(path, { how = 'exclusive', waitMs = 0 } = {}) {
  mkdirSync(dirname(path), { recursive: true })
  const fd = openSync(path, 'a', 0o600)
  for (let waited = 0; ; waited += 100) {
    if (ask(fd, how)) break
    if (waited >= waitMs) {
      closeSync(fd)
      return null
    }
    await wait(100)
  }
  let isOpen = true
  return {
    alone: () => isOpen && ask(fd, 'exclusive'),
    release: () => {
      if (isOpen) closeSync(fd)
      isOpen = false
    },
  }
}
