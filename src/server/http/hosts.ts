import { hostname } from 'node:os'
import { isIP } from 'node:net'
import { type NextFunction, type Request, type Response } from 'express'
import { DomainError } from '@server/problem/problem.ts'

/**
 * Names under which this machine is asked for. An address by its numbers is always ours; a name is ours when it is this machine's own (alone or with the
 * network's ending) or was told. Any other was made by somebody to point here, so that a page of theirs may ask this program as if it were its own.
 */
export function isOurs(host: string, told: readonly string[] = []): boolean {
  const name = host
    .toLowerCase()
    .replace(/^\[|\]$/g, '')
    .replace(/[.]$/, '')
  const own = hostname().toLowerCase()
  return isIP(name) !== 0 || [own, 'localhost', ...told].includes(name) || name.startsWith(`${own}.`)
}

/** Refuses what was asked under a name that is not ours. */
export const mustBeOurs =
  (told: readonly string[]) =>
  (req: Request, _res: Response, next: NextFunction): void => {
    // Browsers always name whom they ask; what watches from the network may not.
    if (req.headers.host !== undefined && !isOurs(req.hostname ?? '', told))
      throw new DomainError('not-here', `This machine does not go by the name "${req.hostname ?? ''}".`, [
        'Open it by its address, or start it with that name in HOSTS (several with commas between).',
      ])
    next()
  }
