import { createSlice } from '@reduxjs/toolkit';
import type { PayloadAction } from '@reduxjs/toolkit';
import type { Me } from '@yonder/core/contracts';

export interface SessionState {
  /** Null while nobody is signed in; `checked` is false until the server was asked. */
  me: Me | null;
  checked: boolean;
  /** The session ended by itself while somebody worked: the door says so. */
  ended: boolean;
}

const slice = createSlice({
  name: 'session',
  initialState: { me: null, checked: false, ended: false } as SessionState,
  reducers: {
    signedIn: (state, { payload }: PayloadAction<Me>) => {
      state.me = payload;
      state.checked = true;
      state.ended = false;
    },
    /** The session goes on under a new token: its password was changed here. */
    tokenChanged: (state, { payload }: PayloadAction<string>) => {
      if (state.me) state.me.csrfToken = payload;
    },
    signedOut: (state, { payload }: PayloadAction<{ ended: boolean } | undefined>) => {
      state.ended = (payload?.ended ?? false) && state.me !== null;
      state.me = null;
      state.checked = true;
    },
  },
});

export const { signedIn, signedOut, tokenChanged } = slice.actions;
export const sessionReducer = slice.reducer;
