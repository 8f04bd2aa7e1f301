import type { Draft } from '@yonder/core/contracts';
import { requestSchema } from '@yonder/core/schemas';
import { describe, expect, it } from 'vitest';
import {
  built,
  draftReducer,
  itemChanged,
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
  items,
});
const start = draftReducer(undefined, opened({ athleteId: 'a', draft: draft(item('one'), item('two')) }));
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
  it('remembers a hundred steps and no more', () => {
    let state = start;
    for (let sets = 1; sets <= 130; sets += 1) {
      state = draftReducer(state, itemChanged({ index: 0, change: { sets } }));
    }
    expect(state.past).toHaveLength(100);
  });
  it('opening another athlete’s draft leaves nothing to undo', () => {
    const edited = draftReducer(start, itemChanged({ index: 0, change: { sets: 3 } }));
    const state = draftReducer(edited, opened({ athleteId: 'b', draft: null }));
    expect(state).toEqual({ athleteId: 'b', draft: null, past: [], future: [] });
  });
});
