import { createContext, useContext } from 'react';

/** Opens Tune with a number of the document; absent where there is none to open. */
export const Turning = createContext<((pointer: string) => void) | undefined>(undefined);

export const useTurning = (): ((pointer: string) => void) | undefined => useContext(Turning);
