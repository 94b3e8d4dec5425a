import { useForm, type Control, type FieldErrors, type FieldValues, type Resolver } from 'react-hook-form'
import { type z } from 'zod'
import { readQuantity, shownQuantity, type QuantityRule } from '@core/units/quantity.ts'
import { parseWireSize } from '@core/units/wiresize.ts'

/**
 * Forms: what stands in a field is text until it is read; what can't be read is said beside the field, and nothing is sent.
 *
 *   typed ──readers, one a field──> read ──the send key──> sent
 *                       └──> why not, in words, beside its field
 *
 * 1. Nothing that can't be read is ever sent as nothing.
 * 2. A field says what is wrong once it was left, or once somebody tried to send.
 */
export type Read<T> = { ok: true; value: T } | Unread
/** `by`: the fields of a group that can't be read, each with its reason. */
type Unread = { ok: false; why: string; by?: Readonly<Record<string, string>> }
/** What becomes of what stands in one field. */
export type Reader<T, V = string> = (typed: V) => Read<T>
export type Readers = Readonly<Record<string, Reader<unknown, never>>>
export type ReadOf<R extends Readers> = { [K in keyof R]: R[K] extends Reader<infer T, never> ? T : never }
export type TypedOf<R extends Readers> = { [K in keyof R]: Parameters<R[K]>[0] }

export interface ReadForm<R extends Readers> {
  control: Control<FieldValues>
  /** For the form's own `onSubmit`: reads everything, then sends, or says what can't be read and goes there. */
  submit: (send: (read: ReadOf<R>) => void) => (event?: React.BaseSyntheticEvent) => void
  /** What stands in a field now; asked while drawing, the form is drawn again when it changes. */
  typed: <K extends keyof R & string>(name: K) => TypedOf<R>[K]
  /** Everything that stands in it. */
  all: () => TypedOf<R>
  put: <K extends keyof R & string>(name: K, value: TypedOf<R>[K]) => void
  /** Says beside a field why it can't be sent as it is. */
  refuse: (name: keyof R & string, why: string) => void
  /** Back to what it began with, or to something else. */
  begin: (typed?: TypedOf<R>) => void
  /** What can be read as it stands now; null while something can't be. */
  now: () => ReadOf<R> | null
  /** Something stands there that did not at the beginning. */
  isChanged: boolean
}

/** A form that is read by `readers`; `begin` is what stands in its fields first. */
export function useReadForm<R extends Readers>(readers: R, begin: TypedOf<R>): ReadForm<R> {
  const resolver: Resolver<FieldValues> = (values) => {
    const { read, errors } = readAll(readers, values)
    return Object.keys(errors).length > 0 ? { values: {}, errors } : { values: read, errors: {} }
  }
  const form = useForm<FieldValues>({ defaultValues: begin, mode: 'onTouched', resolver })
  return {
    control: form.control,
    submit: (send) => (event) => void form.handleSubmit((read) => send(read as ReadOf<R>))(event),
    typed: (name) => form.watch(name),
    all: () => form.getValues() as TypedOf<R>,
    put: (name, value) => form.setValue(name, value, { shouldDirty: true }),
    refuse: (name, why) => form.setError(name, { type: 'refused', message: why }, { shouldFocus: true }),
    begin: (typed) => form.reset(typed ?? begin),
    now: () => {
      const { read, errors } = readAll(readers, form.watch())
      return Object.keys(errors).length > 0 ? null : (read as ReadOf<R>)
    },
    isChanged: form.formState.isDirty,
  }
}

/** Everything that stands in a form, read; what can't be is told by field. */
export function readAll(readers: Readers, values: FieldValues): { read: FieldValues; errors: FieldErrors } {
  const read: FieldValues = {}
  const errors: FieldErrors = {}
  for (const [name, reader] of Object.entries(readers)) {
    const got = (reader as Reader<unknown, unknown>)(values[name])
    if (got.ok) read[name] = got.value
    else errors[name] = got.by ? byField(got.by) : { type: 'read', message: got.why }
  }
  return { read, errors }
}

const byField = (by: Readonly<Record<string, string>>) =>
  Object.fromEntries(Object.entries(by).map(([key, message]) => [key, { type: 'read', message }]))

/** A rule of a field, with what stood there before: left as it was, it is not rounded by being shown. */
type Keeping = QuantityRule & { kept?: number | null | undefined }
/** A quantity in the kept unit; null: nothing typed. */
export const quantity =
  (rule: Keeping): Reader<number | null> =>
  (text) =>
    rule.kept != null && text === shownQuantity(rule.kept, rule)
      ? { ok: true, value: rule.kept }
      : readQuantity(text, rule)
/** A quantity that has to be there. */
export const needed =
  (rule: Omit<QuantityRule, 'isNeeded'> & { kept?: number | null | undefined }): Reader<number> =>
  (text) => {
    const read = quantity({ ...rule, isNeeded: true })(text)
    return read.ok && read.value === null ? { ok: false, why: 'Write a number.' } : (read as Read<number>)
  }
/** What the contract asks of a text, with words for when it does not hold. */
export const shaped =
  <S extends z.ZodType>(shape: S, why: string): Reader<z.output<S>> =>
  (text) => {
    const read = shape.safeParse(text)
    return read.success ? { ok: true, value: read.data } : { ok: false, why }
  }
/** A word or two; null: nothing typed. */
export const words: Reader<string | null> = (text) => ({ ok: true, value: text.trim() || null })
/** A word or two that have to be there. */
export const neededWords =
  (why: string): Reader<string> =>
  (text) =>
    text.trim() ? { ok: true, value: text.trim() } : { ok: false, why }
/** A wire's size, as it was written: the server reads it the same way. */
export const wireSizeText: Reader<string> = (text) => {
  const size = parseWireSize(text)
  return size.ok ? { ok: true, value: text.trim() } : { ok: false, why: `${size.reason}.` }
}
/** The same where none need be told. */
export const anyWireSizeText: Reader<string | null> = (text) =>
  text.trim() ? wireSizeText(text) : { ok: true, value: null }
/** Picked, ticked or drawn: it can't be wrong. */
export const asItIs =
  <V>(): Reader<V, V> =>
  (value) => ({ ok: true, value })
