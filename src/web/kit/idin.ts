/** The id that was picked of a list, as the list has it; null where nothing, or nothing of it, was picked. */
export const idIn = <T extends { id: string }>(list: readonly T[], picked: string): T['id'] | null =>
  list.find(({ id }) => id === picked)?.id ?? null
