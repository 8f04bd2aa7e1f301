import { createSlice } from '@reduxjs/toolkit';
import type { PayloadAction } from '@reduxjs/toolkit';
import type { Draft } from '@yonder/core/contracts';
import type { BuildRequest } from '@yonder/core/domain';

type Item = Draft['items'][number];

/** The routine being edited, with what undo and redo need. Null until one is built, loaded or copied. */
export interface DraftState {
  athleteId: string | null;
  draft: Draft | null;
  past: Item[][];
  future: Item[][];
}

const UNDO_STEPS = 100;

const initialState: DraftState = { athleteId: null, draft: null, past: [], future: [] };

function remember(state: DraftState): void {
  if (!state.draft) return;
  state.past.push(state.draft.items);
  if (state.past.length > UNDO_STEPS) state.past.shift();
  state.future = [];
}

const slice = createSlice({
  name: 'draft',
  initialState,
  reducers: {
    /** Takes a draft over from the server, or clears it; nothing to undo. */
    opened: (_state, { payload }: PayloadAction<{ athleteId: string; draft: Draft | null }>) => ({
      ...payload,
      past: [],
      future: [],
    }),
    /** Replaces everything by a freshly built routine; the items before can be had back. */
    built: (state, { payload }: PayloadAction<Draft>) => {
      remember(state);
      state.draft = payload;
    },
    itemsChanged: (state, { payload }: PayloadAction<Item[]>) => {
      if (!state.draft) return;
      remember(state);
      state.draft.items = payload;
    },
    itemChanged: (
      state,
      { payload }: PayloadAction<{ index: number; change: Partial<Omit<Item, 'id'>> }>,
    ) => {
      const item = state.draft?.items[payload.index];
      if (!state.draft || !item) return;
      remember(state);
      state.draft.items = state.draft.items.map((other, i) =>
        i === payload.index ? { ...other, ...payload.change } : other,
      );
    },
    requestChanged: (state, { payload }: PayloadAction<Partial<BuildRequest>>) => {
      if (state.draft) state.draft.request = { ...state.draft.request, ...payload };
    },
    undone: (state) => {
      const before = state.past.pop();
      if (!state.draft || !before) return;
      state.future.push(state.draft.items);
      state.draft.items = before;
    },
    redone: (state) => {
      const after = state.future.pop();
      if (!state.draft || !after) return;
      state.past.push(state.draft.items);
      state.draft.items = after;
    },
  },
});

export const { opened, built, itemsChanged, itemChanged, requestChanged, undone, redone } = slice.actions;
export const draftReducer = slice.reducer;
