import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { api } from './api.ts';
import { sessionReducer } from './sessionSlice.ts';
import { draftReducer } from '../features/routine/draftSlice.ts';

export const store = configureStore({
  reducer: { [api.reducerPath]: api.reducer, session: sessionReducer, draft: draftReducer },
  middleware: (defaults) => defaults().concat(api.middleware),
});

export type RootState = ReturnType<typeof store.getState>;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
