import { type Announcements } from '@dnd-kit/core'

const HOW = 'Space takes it, arrows carry it, space lets it go, Escape puts it back.'

/** What is said of a drag to those who hear the page: things and places by their names, never by their keys. */
export function dragWords(nameOf: (id: string) => string) {
  const of = ({ id }: { id: string | number }) => nameOf(String(id))
  const announcements: Announcements = {
    onDragStart: ({ active }) => `Taken: ${of(active)}`,
    onDragOver: ({ over }) => (over ? `At ${of(over)}` : undefined),
    onDragEnd: ({ active, over }) => `${of(active)}: ${over ? `let go at ${of(over)}` : 'left where it was'}`,
    onDragCancel: ({ active }) => `${of(active)}: left where it was`,
  }
  return { announcements, screenReaderInstructions: { draggable: HOW } }
}
