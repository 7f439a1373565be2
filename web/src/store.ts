import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector, useStore } from 'react-redux';
import { changeSlice } from './api/changeSlice';
import { unconfirmedSlice } from './api/unconfirmedSlice';
import { zonalApi } from './api/zonalApi';
import { historySlice } from './inside/historySlice';
import { deskSlice, keepDesk } from './inside/deskSlice';

export const store = configureStore({
  reducer: {
    [zonalApi.reducerPath]: zonalApi.reducer,
    desk: deskSlice.reducer,
    changes: changeSlice.reducer,
    history: historySlice.reducer,
    unconfirmed: unconfirmedSlice.reducer,
  },
  middleware: (defaults) => defaults().concat(zonalApi.middleware),
});

let desk = store.getState().desk;
store.subscribe(() => {
  const next = store.getState().desk;
  if (next !== desk) keepDesk((desk = next));
});

export type State = ReturnType<typeof store.getState>;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppStore = useStore.withTypes<typeof store>();
export const useAppSelector = useSelector.withTypes<State>();
