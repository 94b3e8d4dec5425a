import { type Choice } from './logkeys.ts'

/** One letter, one act: the same on Floor (on the gun that has the focus) and on a gun's page. */
export const LETTERS = ['t', 'n', 's', 'd'] as const
export type Letter = (typeof LETTERS)[number]
export const isLetter = (text: unknown): text is Letter => LETTERS.some((l) => l === text)

export function choiceOf(letter: Letter, isDown: boolean): Choice {
  switch (letter) {
    case 't':
      return { act: 'changed', position: 'tip' }
    case 'n':
      return { act: 'cleaned', position: 'nozzle' }
    case 's':
      return { act: 'newSpool', position: null }
    case 'd':
      return { act: isDown ? 'running' : 'down', position: null }
  }
}
