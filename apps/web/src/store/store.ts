import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { batchesReducer } from '../server/batches';
import { clipboardReducer } from '../features/enemies/copied';
import { documentReducer } from './document';
import { fetchedReducer } from './fetched';
import { readoutReducer } from '../readout/slice';
import { warningsReducer } from '../warnings/warnings';

/** Documents are replaced, never mutated; checking that on every action would cost more than the change itself. */
export const makeStore = () =>
  configureStore({
    reducer: {
      document: documentReducer,
      fetched: fetchedReducer,
      batches: batchesReducer,
      readout: readoutReducer,
      clipboard: clipboardReducer,
      warnings: warningsReducer,
    },
    middleware: (getDefault) => getDefault({ immutableCheck: false, serializableCheck: false }),
  });

export type AppStore = ReturnType<typeof makeStore>;
export type RootState = ReturnType<AppStore['getState']>;
export const useAppDispatch = useDispatch.withTypes<AppStore['dispatch']>();
export const useAppSelector = useSelector.withTypes<RootState>();
