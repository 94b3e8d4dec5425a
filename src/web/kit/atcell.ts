import { createContext } from 'react'

/** What is shown is done at a robot's cell: nobody holds the gun, and other things can hurt. */
export const AtCell = createContext(false)
