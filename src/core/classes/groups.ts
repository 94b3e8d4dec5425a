/** How far a group has come: what it uses up goes by it (P185). */
export const LEVELS = ['new', 'some', 'skilled'] as const
export type Level = (typeof LEVELS)[number]
export const LEVEL_NAME: Record<Level, string> = { new: 'beginners', some: 'some practice', skilled: 'skilled' }

/** A learner is a code that names nobody: two to twelve letters, figures or dashes, and no word of letters alone that could be a name. */
export const isCode = (text: string): boolean => /^[A-Za-z0-9-]{1,12}$/.test(text) && /\d/.test(text)
