import { type z } from 'zod'
import { type Deps, type Who } from './context.ts'

/** One endpoint: what it is called, the shapes that go in and come out, and the one service it calls. */
export interface Endpoint<D extends Deps = Deps> {
  method: 'get' | 'post'
  path: `/${string}`
  summary: string
  body?: z.ZodType
  query?: z.ZodType
  answer: z.ZodType
  run: (deps: D, who: Who, input: { body: unknown; query: unknown; params: Record<string, string> }) => Promise<unknown>
}

interface Shapes<B extends z.ZodType, Q extends z.ZodType, A extends z.ZodType, D extends Deps> {
  method: 'get' | 'post'
  path: `/${string}`
  summary: string
  body?: B
  query?: Q
  answer: A
  run: (
    deps: D,
    who: Who,
    input: { body: z.output<B>; query: z.output<Q>; params: Record<string, string> },
  ) => Promise<z.input<A>>
}

/** Declares an endpoint; `run` gets parsed input, typed by its shapes. */
export function endpoint<B extends z.ZodType, Q extends z.ZodType, A extends z.ZodType, D extends Deps = Deps>(
  shapes: Shapes<B, Q, A, D>,
): Endpoint<D> {
  return shapes as unknown as Endpoint<D>
}
