import { stage, unstage } from '@web/testing/stage.tsx'
import { gun, want } from '@web/testing/samples.ts'
import { screen } from '@testing-library/react'
import { useState } from 'react'
import { Key } from '@web/kit/Keys.tsx'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { useLogKeys } from '@web/log/useLogKeys.ts'
import { FirstHere } from './FirstHere.tsx'

afterEach(unstage)
function Page({ wants, onAll }: { wants: ReturnType<typeof want>[]; onAll: () => void }) {
  return <FirstHere gun={gun({ wants })} driver={useLogKeys(['stn_00b7'])} onAll={onAll} />
}
const keys = () => screen.getAllByRole('button').map((b) => b.textContent)

describe('a hand’s first page of a gun', () => {
  it('has the two taps and the way to the rest, and nothing else', async () => {
    const onAll = vi.fn()
    const { user, sent, getByRole } = stage(<Page wants={[want({ position: 'tip', act: 'change' })]} onAll={onAll} />, {
      'POST /logbook': { logged: [], isRepeat: false },
    })
    expect(keys()).toHaveLength(5)
    await user.click(getByRole('button', { name: 'Tip changed' }))
    await user.click(getByRole('button', { name: 'Worn' }))
    await vi.waitFor(() => expect(sent).toHaveLength(1))
    expect(sent[0]).toMatchObject({
      path: '/logbook',
      body: { acts: [{ act: 'changed', position: 'tip', outReason: 'worn' }] },
    })
    await user.click(getByRole('button', { name: /^show me all of/ }))
    expect(onAll).toHaveBeenCalledOnce()
  })
  it('keeps its keys where they are when what was wanted is done', async () => {
    const { user, getByRole } = stage(<Then />, {})
    const before = keys()
    expect(before).toContain('Liner changed')
    await user.click(getByRole('button', { name: 'nothing is wanted now' }))
    expect(keys()).toEqual(before)
  })
})
function Then() {
  const [wants, setWants] = useState([want({ position: 'liner', act: 'change' })])
  return (
    <>
      <Key onClick={() => setWants([])}>nothing is wanted now</Key>
      <Page wants={wants} onAll={vi.fn()} />
    </>
  )
}
