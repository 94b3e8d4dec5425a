import express, { type Request, type RequestHandler, type Response, type Router } from 'express'
import { type Who } from '@server/call/context.ts'
import { doorOf, ROUTES, type Route } from '@server/call/rights.ts'

/** Every route is opened here, under its right: who may not is refused before anything of what they send is read. */
export class Doors {
  private readonly opened = new Set<string>()
  readonly router: Router = express.Router()

  constructor(private readonly whoOf: (req: Request) => Promise<Who>) {}

  get = (path: `/${string}`, ...then: RequestHandler[]): void => this.open(`GET ${path}`, then)
  post = (path: `/${string}`, ...then: RequestHandler[]): void => this.open(`POST ${path}`, then)

  private open(route: Route, then: RequestHandler[]): void {
    const must = doorOf(route)
    this.opened.add(route)
    const [method, path = ''] = route.split(' ') as ['GET' | 'POST', string]
    const door: RequestHandler = async (req, res, next) => {
      if (must) {
        const who = await this.whoOf(req)
        must(who)
        res.locals['who'] = who
      }
      next()
    }
    this.router[method === 'GET' ? 'get' : 'post'](path, door, ...then)
  }

  /** What the table of rights names and nobody serves is a mistake in it. */
  mustBeAll(): void {
    const missing = Object.keys(ROUTES).filter((route) => !this.opened.has(route))
    if (missing.length > 0)
      throw new Error(`Rights are written down for routes that are not served: ${missing.join(', ')}`)
  }
}

/** Who asks, as it was found at the door. */
export const askedBy = (res: Response) => res.locals['who'] as Who
