import type { Draft } from '@yonder/core/contracts';
import { requestSchema } from '@yonder/core/schemas';
import { describe, expect, it } from 'vitest';
import {
  built,
  draftReducer,
  itemChanged,
  itemRemoved,
  itemsChanged,
  opened,
  redone,
  requestChanged,
  undone,
} from './draftSlice.ts';
import type { DraftState } from './draftSlice.ts';

const item = (drill: string, sets = 2): Draft['items'][0] => ({
  id: drill,
  drill,
  side: 'both',
  phase: null,
  sets,
  amount: 10,
  measure: 'reps',
  holdSeconds: null,
  restSeconds: 10,
  tempo: null,
  setup: {},
});
const draft = (...items: Draft['items']) => ({
  request: requestSchema.parse({}),
  structure: 'short-minimum',
  sections: [],
  left: [],
  items,
});
const start = draftReducer(undefined, opened({ of: 'a', draft: draft(item('one'), item('two')) }));
const drills = (state: DraftState) => state.draft?.items.map((i) => `${i.drill}×${i.sets}`);

describe('editing a routine', () => {
  it('undoes and redoes step by step', () => {
    let state = draftReducer(start, itemChanged({ index: 0, change: { sets: 3 } }));
    state = draftReducer(state, itemsChanged([item('two')]));
    expect(drills(state)).toEqual(['two×2']);
    state = draftReducer(state, undone());
    expect(drills(state)).toEqual(['one×3', 'two×2']);
    state = draftReducer(state, undone());
    expect(drills(state)).toEqual(['one×2', 'two×2']);
    expect(draftReducer(state, undone())).toEqual(state);
    state = draftReducer(draftReducer(state, redone()), redone());
    expect(drills(state)).toEqual(['two×2']);
  });
  it('a new edit forgets what was undone', () => {
    let state = draftReducer(start, itemChanged({ index: 0, change: { sets: 3 } }));
    state = draftReducer(state, undone());
    state = draftReducer(state, itemChanged({ index: 1, change: { sets: 4 } }));
    expect(draftReducer(state, redone())).toEqual(state);
    expect(drills(state)).toEqual(['one×2', 'two×4']);
  });
  it('building again can be undone; changing what is asked for is no step of its own', () => {
    let state = draftReducer(start, built(draft(item('three'))));
    state = draftReducer(state, requestChanged({ minutes: 7, pins: ['three'] }));
    expect(state.draft?.request).toMatchObject({ minutes: 7, pins: ['three'] });
    state = draftReducer(state, undone());
    expect(drills(state)).toEqual(['one×2', 'two×2']);
    expect(state.draft?.request.minutes).toBe(7);
  });
  it('what is typed into one figure without a pause is one step', () => {
    const type = (state: DraftState, sets: number, at: number, index = 0) =>
      draftReducer(state, itemChanged({ index, change: { sets } }, at));
    const typed = type(type(start, 1, 1000), 15, 1200);
    expect(drills(draftReducer(typed, undone()))).toEqual(['one×2', 'two×2']);
    expect(drills(draftReducer(type(typed, 16, 2700), undone()))).toEqual(['one×15', 'two×2']);
    expect(drills(draftReducer(type(typed, 3, 1300, 1), undone()))).toEqual(['one×15', 'two×2']);
    const back = draftReducer(typed, undone());
    expect(drills(draftReducer(type(back, 4, 1250), undone()))).toEqual(['one×2', 'two×2']);
  });
  it('a drill taken out stays out until it is let back, put in again, or the step is undone', () => {
    const pinned = draftReducer(start, requestChanged({ pins: ['one'] }));
    const without = draftReducer(pinned, itemRemoved({ drill: 'one', left: [item('two')] }));
    expect(without.draft?.request).toMatchObject({ bans: ['one'], pins: [] });
    expect(draftReducer(without, undone()).draft?.request.bans).toEqual([]);
    expect(draftReducer(draftReducer(without, undone()), redone()).draft?.request.bans).toEqual(['one']);
    const again = draftReducer(without, itemsChanged([item('two'), item('one')]));
    expect(again.draft?.request.bans).toEqual([]);
    const banned = draftReducer(start, requestChanged({ bans: ['one'] }));
    expect(draftReducer(banned, itemsChanged([item('one')])).draft?.request.bans).toEqual(['one']);
  });
  it('remembers a hundred steps and no more', () => {
    let state = start;
    for (let sets = 1; sets <= 130; sets += 1) {
      state = draftReducer(state, itemChanged({ index: 0, change: { sets } }, sets * 2000));
    }
    expect(state.past).toHaveLength(100);
  });
  it('opening another athlete’s draft leaves nothing to undo', () => {
    const edited = draftReducer(start, itemChanged({ index: 0, change: { sets: 3 } }));
    const state = draftReducer(edited, opened({ of: 'b', draft: null }));
    expect(state).toEqual({ of: 'b', draft: null, past: [], future: [], typing: null });
  });
});
