import { type Id, type IdName } from '@core/ids/id.ts'

/** An id of a sample, by a short name of its own. */
export const anId = <N extends IdName>(_of: N, name: string): Id<N> => name as Id<N>
