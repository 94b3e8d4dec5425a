import { afterEach, describe, expect, it, vi } from 'vitest'
import { stage, unstage } from '@web/testing/stage.tsx'
import { Photos } from './Photos.tsx'

afterEach(() => {
  unstage()
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
})
const of = { type: 'spool', key: 'spool_1' } as const
const one = {
  id: 'pic_1',
  widthPx: 1200,
  heightPx: 1600,
  takenMs: Date.UTC(2026, 10, 20, 9),
  canHide: true,
  clip: null,
}

describe('photos', () => {
  it('stand in a row; one opens large and may be taken back by who took it', async () => {
    const { user, findByRole, getByAltText, getByRole, sent } = stage(<Photos of={of} />, {
      '/photo': { zone: 'UTC', photos: [one] },
      '/photo/hide': { ok: true },
    })
    await user.click(await findByRole('button', { name: /Photo of/ }))
    expect(getByAltText('The photo, large').getAttribute('src')).toBe('/api/photo/pic_1.jpg')
    await user.click(getByRole('button', { name: 'take it back' }))
    expect(sent).toMatchObject([{ path: '/photo/hide', body: { id: 'pic_1' } }])
  })
  it('that is a clip plays its pictures one after the other, and is stepped by hand', async () => {
    vi.stubGlobal('matchMedia', () => ({ matches: true }))
    const clip = { frames: 8, perRow: 6, stepMs: 150 }
    const { user, findByRole, getByRole } = stage(<Photos of={of} clipWord="a clip" />, {
      '/photo': { zone: 'UTC', photos: [{ ...one, clip }] },
    })
    await user.click(await findByRole('button', { name: /Clip of/ }))
    // Where motion is not wanted it stands.
    expect(getByRole('img', { name: 'The clip, picture 1 of 8' }).style.backgroundPosition).toBe('0% 0%')
    await user.click(getByRole('button', { name: 'one back' }))
    expect(getByRole('img', { name: 'The clip, picture 8 of 8' }).style.backgroundPosition).toBe('20% 100%')
    await user.click(getByRole('button', { name: 'play' }))
    await findByRole('img', { name: 'The clip, picture 1 of 8' })
    await findByRole('img', { name: 'The clip, picture 2 of 8' })
  })
  it('a film this device can’t read is told, and nothing is kept', async () => {
    Object.assign(URL, { createObjectURL: () => 'blob:x', revokeObjectURL: () => undefined })
    const make = document.createElement.bind(document)
    vi.spyOn(document, 'createElement').mockImplementation((tag: string) => {
      const made = make(tag)
      if (tag === 'video') setTimeout(() => made.dispatchEvent(new Event('error')))
      return made
    })
    const { user, getByLabelText, findByRole, sent } = stage(<Photos of={of} clipWord="a clip" />, {
      '/photo': { zone: 'UTC', photos: [] },
    })
    await user.upload(getByLabelText('a clip'), new File(['x'], 'x.mp4', { type: 'video/mp4' }))
    expect((await findByRole('alert')).textContent).toContain('This device can’t read that film.')
    expect(sent).toEqual([])
  })
  it('of somebody else can’t be taken back', async () => {
    const { user, findByRole, queryByText } = stage(<Photos of={of} />, {
      '/photo': { zone: 'UTC', photos: [{ ...one, canHide: false }] },
    })
    await user.click(await findByRole('button', { name: /Photo of/ }))
    expect(queryByText('take it back')).toBeNull()
  })
  it('one that can’t be read says so in words', async () => {
    const { user, getByLabelText, findByRole } = stage(<Photos of={of} word="photo of the label" />, {
      '/photo': { zone: 'UTC', photos: [] },
      'POST /photo': {
        problem: { code: 'sheet-refused', message: 'That is no picture this program can read.', details: [] },
      },
    })
    await user.upload(getByLabelText('photo of the label'), new File(['x'], 'x.jpg', { type: 'image/jpeg' }))
    expect((await findByRole('alert')).textContent).toContain('That is no picture this program can read.')
  })
  it('without a link wait on the device, and say so', async () => {
    const { user, getByLabelText, findByText } = stage(<Photos of={{ type: 'part', key: 'part_1' }} />, {
      '/photo': { zone: 'UTC', photos: [] },
      'POST /photo': 'no link',
    })
    await user.upload(getByLabelText('a photo'), new File(['x'], 'x.jpg', { type: 'image/jpeg' }))
    await findByText('one kept here until there is a link')
  })
})
