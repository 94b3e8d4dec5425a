import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Bare } from '@web/kit/Keys.tsx'
import { useReadForm, type Reader } from '@web/kit/readform.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { TypedField } from '@web/kit/TypedField.tsx'
import { LEAST_LETTERS, newPassword } from './password.ts'
import { useChangePassword } from './queries.ts'

const typed: Reader<string> = (text) => (text === '' ? { ok: false, why: 'Type it.' } : { ok: true, value: text })
/** One's own password anew; whatever else is signed in under that name is signed out. */
export function OwnPassword({ name }: { name: string }) {
  const [isOpen, setOpen] = useState(false)
  const change = useChangePassword()
  const form = useReadForm({ old: typed, password: newPassword }, { old: '', password: '' })
  if (!isOpen)
    return (
      <p>
        {name} is signed in here. <Bare onClick={() => setOpen(true)}>a new password</Bare>{' '}
        {change.isSuccess ? <span role="status">It holds from now on; other devices sign in anew.</span> : null}
      </p>
    )
  const send = form.submit((read) =>
    change.mutate(read, {
      onSuccess: () => {
        form.begin()
        setOpen(false)
      },
    }),
  )
  return (
    <Form noValidate className="stack own-password" onSubmit={send}>
      <TypedField
        form={form}
        name="old"
        id="pw-old"
        label={`${name}’s password now`}
        type="password"
        autoComplete="current-password"
      />
      <TypedField
        form={form}
        name="password"
        id="pw-new"
        label={`the new one, at least ${LEAST_LETTERS} letters`}
        type="password"
        autoComplete="new-password"
      />
      <Trouble problem={change.error} />
      <div className="built-keys">
        <Button type="submit" disabled={change.isPending}>
          Change it
        </Button>
        <Bare onClick={() => setOpen(false)}>leave it</Bare>
      </div>
    </Form>
  )
}
