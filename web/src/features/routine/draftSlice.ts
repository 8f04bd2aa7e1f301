import { createSlice } from '@reduxjs/toolkit';
import type { PayloadAction } from '@reduxjs/toolkit';
import type { Draft } from '@yonder/core/contracts';
import { isLine } from '@yonder/core/reference';
import type { BuildRequest, Section } from '@yonder/core/domain';

type Item = Draft['items'][number];

/** What undo takes back and redo does again: the lines, their sections, and the drills left out. */
interface Step {
  items: Item[];
  sections: Section[];
  bans: string[];
}

/** The routine being edited, with what undo and redo need. Null until one is built, loaded or copied. */
export interface DraftState {
  /** Whose draft, for which occasion. */
  of: string | null;
  draft: Draft | null;
  past: Step[];
  future: Step[];
  /** The figure changed last and when (ms): its next keys belong to the same step. */
  typing: { figure: string; at: number } | null;
}

const UNDO_STEPS = 100;
/** Keys on one figure that follow each other this fast are one step: "15" is not 1 and then 15. */
const TYPING_MS = 1500;

const initialState: DraftState = { of: null, draft: null, past: [], future: [], typing: null };

const stepOf = ({ items, sections, request }: Draft): Step => ({ items, sections, bans: request.bans });

function remember(state: DraftState): void {
  if (!state.draft) return;
  state.past.push(stepOf(state.draft));
  if (state.past.length > UNDO_STEPS) state.past.shift();
  state.future = [];
  state.typing = null;
}

function goTo(state: DraftState, from: Step[], to: Step[]): void {
  const step = from.pop();
  if (!state.draft || !step) return;
  to.push(stepOf(state.draft));
  state.draft.items = step.items;
  state.draft.sections = step.sections;
  state.draft.request.bans = step.bans;
  state.typing = null;
}

const slice = createSlice({
  name: 'draft',
  initialState,
  reducers: {
    /** Takes a draft over from the server, or clears it; nothing to undo. */
    opened: (_state, { payload }: PayloadAction<{ of: string; draft: Draft | null }>) => ({
      ...payload,
      past: [],
      future: [],
      typing: null,
    }),
    /** Replaces everything by a freshly built routine; the items before can be had back. */
    built: (state, { payload }: PayloadAction<Draft>) => {
      remember(state);
      state.draft = payload;
    },
    /** Other items; what was put in is no longer left out. */
    itemsChanged: (state, { payload }: PayloadAction<Item[]>) => {
      if (!state.draft) return;
      remember(state);
      const before = new Set(state.draft.items.map((item) => item.drill));
      const added = new Set(payload.map((item) => item.drill).filter((drill) => !before.has(drill)));
      state.draft.items = payload;
      state.draft.request.bans = state.draft.request.bans.filter((drill) => !added.has(drill));
    },
    /** A drill taken out stays out when drills are chosen again, until it is let back or stands elsewhere. */
    itemRemoved: (state, { payload: { drill, left } }: PayloadAction<{ drill: string; left: Item[] }>) => {
      if (!state.draft) return;
      remember(state);
      const { request } = state.draft;
      state.draft.items = left;
      if (isLine(drill) || left.some((item) => item.drill === drill)) return;
      request.bans = [...request.bans.filter((id) => id !== drill), drill];
      request.pins = request.pins.filter((id) => id !== drill);
    },
    itemChanged: {
      prepare: (payload: { index: number; change: Partial<Omit<Item, 'id'>> }, at: number = Date.now()) => ({
        payload,
        meta: { at },
      }),
      reducer: (
        state,
        {
          payload: { index, change },
          meta: { at },
        }: PayloadAction<{ index: number; change: Partial<Omit<Item, 'id'>> }, string, { at: number }>,
      ) => {
        const item = state.draft?.items[index];
        if (!state.draft || !item) return;
        const figure = `${item.id} ${Object.keys(change).join()}`;
        const same = state.typing?.figure === figure && at - state.typing.at < TYPING_MS;
        if (!same) remember(state);
        state.typing = { figure, at };
        state.draft.items = state.draft.items.map((other, i) =>
          i === index ? { ...other, ...change } : other,
        );
      },
    },
    /** Other sections, with the items as they then stand in them. */
    sectionsChanged: (state, { payload }: PayloadAction<{ sections: Section[]; items: Item[] }>) => {
      if (!state.draft) return;
      remember(state);
      state.draft.sections = payload.sections;
      state.draft.items = payload.items;
    },
    /** A note left as it is, or taken up again. */
    leftChanged: (state, { payload }: PayloadAction<Draft['left']>) => {
      if (state.draft) state.draft.left = payload;
    },
    requestChanged: (state, { payload }: PayloadAction<Partial<BuildRequest>>) => {
      if (state.draft) state.draft.request = { ...state.draft.request, ...payload };
    },
    undone: (state) => goTo(state, state.past, state.future),
    redone: (state) => goTo(state, state.future, state.past),
  },
});

export const {
  opened,
  built,
  itemsChanged,
  itemRemoved,
  itemChanged,
  sectionsChanged,
  leftChanged,
  requestChanged,
  undone,
  redone,
} = slice.actions;
export const draftReducer = slice.reducer;
