import { createContext, useContext } from 'react';
import { type TimeScale, timeScale } from './scale';

/** The timeline's scale, for the parts of rows that are drawn by it: the rest of a row does not follow a zoom. */
export const ScaleContext = createContext<TimeScale>(timeScale(1, 100));

export const useScale = (): TimeScale => useContext(ScaleContext);
