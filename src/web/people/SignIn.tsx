import { PickField, TextField } from '@web/kit/Field.tsx'
import { useForm } from 'react-hook-form'
import { zodResolver } from '@hookform/resolvers/zod'
import { Button, Form } from 'react-bootstrap'
import { useNavigate } from 'react-router'
import { firstLeadRequest, signInRequest } from '@contract/people.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useBringBack, useFirstLead, useMe, useSignIn } from './queries.ts'

/** Sign-in for the lead's things; on an empty shop, its name and first lead. */
export function SignInPage() {
  const me = useMe()
  if (me.isPending) return null
  return me.data?.isNew ? (
    <>
      <FirstLead />
      <BringBack />
    </>
  ) : (
    <SignIn isDemo={me.data?.isDemo ?? false} />
  )
}

function SignIn({ isDemo }: { isDemo: boolean }) {
  const form = useForm({ resolver: zodResolver(signInRequest), defaultValues: { name: '', password: '' } })
  const signIn = useSignIn()
  const go = useNavigate()
  return (
    <main className="narrow">
      <h1>Sign in</h1>
      <p className="dim said">
        For the lead’s things. A tablet at a booth needs no name: the lead makes a link in Our shop that binds it to its
        place.
      </p>
      <Form
        noValidate
        onSubmit={form.handleSubmit((values) => signIn.mutate(values, { onSuccess: () => go('/') }))}
        className="stack"
      >
        <TextField id="name" label="Name" autoFocus autoComplete="username" {...form.register('name')} />
        <TextField
          id="password"
          label="Password"
          type="password"
          autoComplete="current-password"
          {...form.register('password')}
        />
        <Trouble problem={signIn.error} />
        <Button type="submit" variant="chalk" disabled={signIn.isPending}>
          Sign in
        </Button>
      </Form>
      {isDemo ? (
        <p className="small-print">This is the demo yard; its sign-in stands where the program was started.</p>
      ) : null}
    </main>
  )
}

/** The other way to begin: a shop that was saved as one file. */
function BringBack() {
  const bring = useBringBack()
  return (
    <section className="narrow">
      <h2>Or bring a whole shop back</h2>
      <TextField
        id="whole"
        label="the file it was saved as"
        type="file"
        accept=".jsonl"
        onChange={(e) => {
          const file = (e.target as HTMLInputElement).files?.[0]
          if (file) bring.mutate(file)
        }}
      />
      <Trouble problem={bring.error} />
      <p className="small-print" role="status">
        {bring.isPending
          ? 'Taking it in …'
          : bring.data
            ? `${bring.data.rows} rows are back. Sign in as you did there.`
            : ''}
      </p>
    </section>
  )
}

function FirstLead() {
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
  const form = useForm({
    resolver: zodResolver(firstLeadRequest),
    defaultValues: { shopName: '', zone, units: 'metric' as const, name: '', password: '' },
  })
  const save = useFirstLead()
  const go = useNavigate()
  const errors = form.formState.errors
  return (
    <main className="narrow">
      <h1>A new shop</h1>
      <p className="dim said">Say what it is called and who leads it. The guns come next, in one line.</p>
      <Form
        noValidate
        onSubmit={form.handleSubmit((values) => save.mutate(values, { onSuccess: () => go('/') }))}
        className="stack"
      >
        <TextField
          id="shopName"
          label="Shop"
          autoFocus
          {...form.register('shopName')}
          why={errors.shopName && 'Write what the shop is called.'}
        />
        <div className="pair">
          <TextField
            id="zone"
            label="Time zone"
            {...form.register('zone')}
            why={errors.zone && 'Written like Europe/Berlin or America/Chicago.'}
          />
          <PickField id="units" label="Units" {...form.register('units')}>
            <option value="metric">mm, kg</option>
            <option value="us">inch, lb</option>
          </PickField>
        </div>
        <TextField
          id="name"
          label="Your name"
          autoComplete="username"
          {...form.register('name')}
          why={errors.name && 'Write your name.'}
        />
        <Form.Group controlId="password">
          <Form.Label>A password, at least 10 letters</Form.Label>
          <Form.Control
            type="password"
            autoComplete="new-password"
            {...form.register('password')}
            isInvalid={!!errors.password}
          />
          <Form.Control.Feedback type="invalid">{errors.password?.message}</Form.Control.Feedback>
        </Form.Group>
        <Trouble problem={save.error} />
        <Button type="submit" variant="chalk" disabled={save.isPending}>
          Open the shop
        </Button>
      </Form>
    </main>
  )
}
