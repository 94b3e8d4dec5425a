import { fork, type ChildProcess } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { DomainError } from '@server/problem/problem.ts'
import { type Recoded, type RecoderSaid } from './recoder.ts'

const JPEG = [0xff, 0xd8, 0xff]
const PNG = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]
const begins = (bytes: Uint8Array, starts: readonly number[]) => starts.every((byte, i) => bytes[i] === byte)
const letters = (bytes: Uint8Array, from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to))

/** Whether bytes begin as a photo does: nothing else is even opened. */
export const isPhoto = (bytes: Uint8Array) =>
  begins(bytes, JPEG) || begins(bytes, PNG) || (letters(bytes, 0, 4) === 'RIFF' && letters(bytes, 8, 12) === 'WEBP')

const LONGEST_MS = 15_000
/** Photos that wait at once; a hall of tablets sends one each. */
const MOST_WAITING = 12
/** A process that has nothing to do any more gives its memory back. */
const IDLE_MS = 30_000

const noPhoto = (cause?: unknown) =>
  Object.assign(
    new DomainError('sheet-refused', 'That is no picture this program can read.', [
      'Take a JPEG, PNG or WebP of at most 60 megapixels. Nothing was kept.',
    ]),
    { cause },
  )

/** Bundled there is a file beside this one; from source the process learns to read it first. */
function openRecoder(): ChildProcess {
  const isSource = import.meta.url.endsWith('.ts')
  const path = fileURLToPath(new URL(isSource ? './recoder.ts' : './recoder.js', import.meta.url))
  return fork(path, { serialization: 'advanced', execArgv: isSource ? ['--import', 'tsx'] : [], stdio: 'ignore' })
}

/** One photo after the other through a process that is ended when one takes too long. */
export class Recoding {
  private readonly open: () => ChildProcess
  private readonly longestMs: number
  private child: ChildProcess | null = null
  private idle: NodeJS.Timeout | undefined
  private last: Promise<unknown> = Promise.resolve()
  private waiting = 0
  constructor(open = openRecoder, longestMs = LONGEST_MS) {
    this.open = open
    this.longestMs = longestMs
  }

  async recode(bytes: Uint8Array): Promise<Recoded> {
    if (this.waiting >= MOST_WAITING)
      throw new DomainError('busy', 'Many photos come at once.', ['Try again in a moment. Nothing was kept.'])
    this.waiting++
    const mine = this.last.then(() => this.one(bytes))
    this.last = mine.catch(() => undefined)
    return mine.finally(() => void this.waiting--)
  }

  private one(bytes: Uint8Array): Promise<Recoded> {
    clearTimeout(this.idle)
    const child = this.child ?? this.open()
    this.child = child
    return new Promise<Recoded>((done, fail) => {
      const timer = setTimeout(() => this.end(child), this.longestMs)
      const over = () => {
        clearTimeout(timer)
        child.off('message', said)
        child.off('exit', gone)
        this.restLater(child)
      }
      const said = (answer: RecoderSaid) => {
        over()
        if ('recoded' in answer) done(answer.recoded)
        else fail(noPhoto(answer.problem))
      }
      const gone = () => {
        this.forget(child)
        over()
        fail(noPhoto('the process ended'))
      }
      child.on('message', said)
      child.once('exit', gone)
      child.send(bytes, (problem) => problem && this.end(child))
    })
  }

  private restLater(child: ChildProcess): void {
    this.idle = setTimeout(() => this.end(child), IDLE_MS)
    this.idle.unref()
    // Between photos it keeps nobody from stopping.
    child.unref()
    child.channel?.unref()
  }
  private end(child: ChildProcess): void {
    this.forget(child)
    child.kill('SIGKILL')
  }
  private forget(child: ChildProcess): void {
    if (this.child === child) this.child = null
  }
}
const recoding = new Recoding()

/**
 * A photo as it is kept: turned upright, made small enough, and encoded anew, so that nothing rides along: no place, no time,
 * no device, no bytes behind the picture. Whatever is no picture is refused in words.
 */
export async function recode(bytes: Uint8Array): Promise<Recoded> {
  if (!isPhoto(bytes)) throw noPhoto()
  return recoding.recode(bytes)
}
