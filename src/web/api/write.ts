import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type z } from 'zod'
import { newKey, postJson } from './client.ts'

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
