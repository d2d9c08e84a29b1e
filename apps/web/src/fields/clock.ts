import type { Clock } from '@insidia/core';
import { createContext, useContext } from 'react';

/** What is in view goes by: seconds, where nothing says. */
export const ClockInView = createContext<Clock>('continuous');

export const useClockInView = (): Clock => useContext(ClockInView);
