import { fireEvent } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { PLACES, stage, unstage } from '@web/testing/stage.tsx'
import { WhichGun } from './WhichGun.tsx'

afterEach(unstage)

describe('a page of one gun whose address names none', () => {
  it('asks which, and says it in the address', async () => {
    const at = stage(<WhichGun />, {}, '/read?what=tip')
    fireEvent.change(await at.findByLabelText('Gun'), { target: { value: 'stn_00a2' } })
    expect(at.where()).toBe('/read?what=tip&gun=stn_00a2')
  })
  it('where there are none, shows where they are made', async () => {
    const at = stage(<WhichGun />, { '/find': { ...PLACES, places: [] } }, '/read')
    await at.findByText('No guns yet. Say how many there are.')
    expect(at.getByRole('link', { name: 'Floor' }).getAttribute('href')).toBe('/')
  })
})
