import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector, useStore } from 'react-redux';
import { changeSlice } from './api/changeSlice';
import { unconfirmedSlice } from './api/unconfirmedSlice';
import { zonalApi } from './api/zonalApi';
import { historySlice } from './inside/historySlice';
import { deskSlice, keepDesk } from './inside/deskSlice';
import { firstDaySlice, keepFirstDay } from './shell/firstDaySlice';

export const store = configureStore({
  reducer: {
    [zonalApi.reducerPath]: zonalApi.reducer,
    desk: deskSlice.reducer,
    changes: changeSlice.reducer,
    history: historySlice.reducer,
    unconfirmed: unconfirmedSlice.reducer,
    firstDay: firstDaySlice.reducer,
  },
  middleware: (defaults) => defaults().concat(zonalApi.middleware),
});

let { desk, firstDay } = store.getState();
store.subscribe(() => {
  const next = store.getState();
  if (next.desk !== desk) keepDesk((desk = next.desk));
  if (next.firstDay !== firstDay) keepFirstDay((firstDay = next.firstDay));
});

export type State = ReturnType<typeof store.getState>;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppStore = useStore.withTypes<typeof store>();
export const useAppSelector = useSelector.withTypes<State>();
