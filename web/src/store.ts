import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector, useStore } from 'react-redux';
import { changeSlice } from './api/changeSlice';
import { personSlice } from './api/personSlice';
import { unconfirmedSlice } from './api/unconfirmedSlice';
import { baseApi } from './api/baseApi';
import { removeNewWindow } from './glass/newWindowDraft';
import { historyReplaced, historySlice } from './inside/historySlice';
import { removeHistory, storeHistory, storedHistory } from './inside/storedHistory';
import { deskSlice, keepDesk } from './inside/deskSlice';
import { firstDaySlice, keepFirstDay } from './shell/firstDaySlice';

export const store = configureStore({
  reducer: {
    [baseApi.reducerPath]: baseApi.reducer,
    desk: deskSlice.reducer,
    changes: changeSlice.reducer,
    history: historySlice.reducer,
    unconfirmed: unconfirmedSlice.reducer,
    firstDay: firstDaySlice.reducer,
    person: personSlice.reducer,
  },
  middleware: (defaults) => defaults().concat(baseApi.middleware),
});

let { desk, firstDay, history, person } = store.getState();
store.subscribe(() => {
  const next = store.getState();
  if (next.desk !== desk) keepDesk((desk = next.desk));
  if (next.firstDay !== firstDay) keepFirstDay((firstDay = next.firstDay));
  const [before, user] = [person.user, next.person.user];
  person = next.person;
  if (user && next.history !== history) storeHistory(user.email, (history = next.history));
  if (before?.email === user?.email) return;
  // Signing out leaves nothing on the device.
  if (!user) {
    removeNewWindow();
    removeHistory();
  }
  store.dispatch(historyReplaced(storedHistory(user?.email ?? '')));
});

export type State = ReturnType<typeof store.getState>;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppStore = useStore.withTypes<typeof store>();
export const useAppSelector = useSelector.withTypes<State>();
