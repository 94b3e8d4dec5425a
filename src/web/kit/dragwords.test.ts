import { describe, expect, it } from 'vitest'
import { dragWords } from './dragwords.ts'

const { announcements } = dragWords((id) => ({ a: 'frames', b: 'spool 2' })[id] ?? 'elsewhere')
const [active, over] = [{ id: 'a' }, { id: 'b' }] as unknown as [never, never]

describe('what is said of a drag', () => {
  it('names the thing and where it is, never by a key', () => {
    expect(announcements.onDragStart({ active })).toBe('Taken: frames')
    expect(announcements.onDragOver({ active, over })).toBe('At spool 2')
    expect(announcements.onDragOver({ active, over: null })).toBeUndefined()
    expect(announcements.onDragEnd({ active, over })).toBe('frames: let go at spool 2')
    expect(announcements.onDragEnd({ active, over: null })).toBe('frames: left where it was')
    expect(announcements.onDragCancel({ active, over })).toBe('frames: left where it was')
  })
})
