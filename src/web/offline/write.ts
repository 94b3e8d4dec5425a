import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type z } from 'zod'
import { sendOrKeep } from './keep.ts'
import { newKey, postJson } from '@web/api/client.ts'

/** What a request asks for beside its key. */
export type Body<R extends z.ZodType> = Omit<z.input<R> & object, 'key'>

/** A write under a key of its own; whatever it made stale is asked for again. */
export function useWrite<B extends object, A extends z.ZodType>(path: string, answer: A) {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (body: B) => postJson(path, { key: newKey(), ...body }, answer),
    onSuccess: () => client.invalidateQueries(),
  })
}

interface BoothWrite<B, A> {
  path: string
  answer: A
  /** What it is, in a line, where it waits on the device. */
  says: (body: B) => string
  /** The list in hand must not change under the hands. */
  holds?: string
}
/** The same at a booth, where there may be no link: kept on the device at its own time then, and its answer is null. */
export function useBoothWrite<R extends z.ZodType, A extends z.ZodType>(of: BoothWrite<Body<R>, A>) {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (body: Body<R> & { key?: string }) =>
      sendOrKeep(of.path, { body: { ...body, key: body.key ?? newKey() }, says: of.says(body) }, of.answer),
    onSuccess: () => client.invalidateQueries({ predicate: (query) => query.queryKey[0] !== of.holds }),
  })
}
