import { fireEvent } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { ChangePage } from '@web/changeover/ChangePage.tsx'
import { TechniquePage } from '@web/classes/TechniquePage.tsx'
import { TunePage } from '@web/down/TunePage.tsx'
import { DragPage } from '@web/drag/DragPage.tsx'
import { LinerPage } from '@web/liner/LinerPage.tsx'
import { ReadPage } from '@web/reading/ReadPage.tsx'
import { stage, unstage } from '@web/testing/stage.tsx'

afterEach(unstage)

/** Whoever comes by a link that was cut short, or types the address: asked, not left waiting. */
describe('a page of one gun, with none in its address', () => {
  it.each([
    ['/read', <ReadPage />, 'gun'],
    ['/liner', <LinerPage />, 'gun'],
    ['/tune', <TunePage />, 'gun'],
    ['/technique', <TechniquePage />, 'gun'],
    ['/change', <ChangePage />, 'guns'],
  ])('%s asks which, and is about that one from then on', async (path, page, named) => {
    const at = stage(page, {}, path)
    fireEvent.change(await at.findByLabelText('Gun'), { target: { value: 'stn_00b7' } })
    expect(at.where()).toBe(`${path}?${named}=stn_00b7`)
    expect(at.queryByText('Which gun?')).toBeNull()
  })
  it('Drag bends one of nobody’s, until a gun is picked', async () => {
    const at = stage(<DragPage />, {}, '/drag')
    const gun = await at.findByLabelText('Gun')
    expect((gun as HTMLSelectElement).selectedOptions[0]?.text).toBe('one of nobody’s')
    await at.findByRole('option', { name: 'B7' })
    fireEvent.change(gun, { target: { value: 'stn_00b7' } })
    expect(at.where()).toBe('/drag?gun=stn_00b7')
  })
})
