import { configureStore } from '@reduxjs/toolkit';
import { deskSlice } from '../desk/state';
import { deskListening } from '../desk/state/listening';
import { api } from './api';

const desk = deskListening();

export const store = configureStore({
  reducer: { [api.reducerPath]: api.reducer, desk: deskSlice.reducer },
  middleware: (get) => get().prepend(desk.middleware).concat(api.middleware),
});
export type RootState = ReturnType<typeof store.getState>;
export type AppDispatch = typeof store.dispatch;

/** Saves what is typed on a bill now; true once nothing is left to save. */
export const flushBill = (id: string): Promise<boolean> => desk.saverOf(store as never).flush(id);
