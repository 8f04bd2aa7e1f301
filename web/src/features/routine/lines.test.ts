import type { Draft } from '@yonder/core/contracts';
import { restLine, wordsLine } from '@yonder/core/routine';
import { describe, expect, it } from 'vitest';
import { changeCircuit, mendCircuits, onTheClock } from './circuit.ts';
import { clearedOf, doubled, putAt, sectionAt, withoutSection } from './lines.ts';

type Item = Draft['items'][number];
const item = (id: string, over: Partial<Item> = {}): Item => ({
  id,
  drill: 'cat-camel',
  side: 'both',
  phase: null,
  sets: 2,
  amount: 8,
  measure: 'reps',
  holdSeconds: null,
  restSeconds: 0,
  tempo: null,
  setup: {},
  ...over,
});
const circuit = { id: 'c', rounds: 3 };
const ids = (items: readonly { id?: string | undefined }[]) => items.map(({ id }) => id ?? 'new').join();

describe('lines of a list composed by hand', () => {
  it('come in at a place and in the part of what stands before it, and never into a circuit', () => {
    const items = [item('a', { phase: 'warm' }), item('b', { circuit }), item('c', { circuit }), item('d')];
    const put = putAt(items, 1, [restLine(60)]);
    expect(ids(put)).toBe('a,new,b,c,d');
    expect(put[1]?.phase).toBe('warm');
    expect(ids(putAt(items, 2, [wordsLine('with the coach', 120)]))).toBe('a,b,c,new,d');
    expect(ids(putAt(items, 0, [restLine(60)]))).toBe('new,a,b,c,d');
    expect(putAt(items, 0, [restLine(60)])[0]?.phase).toBe('warm');
    expect(ids(putAt([], 0, [restLine(60)]))).toBe('new');
  });
  it('once more stands right below, without the name and the past of the first', () => {
    const [, copy] = doubled([item('a', { from: { by: 'dose', drill: 'x' }, circuit })], 'a');
    expect(copy).toMatchObject({ drill: 'cat-camel', circuit });
    expect([copy?.id, copy?.from]).toEqual([undefined, undefined]);
  });
  it('a section takes what follows until the next one, and gives it back when it goes', () => {
    const items = [item('a'), item('b'), item('c', { phase: 'section-1' })];
    const made = sectionAt(items, [{ id: 'section-1', name: 'Legs', minutes: null }], 1);
    expect(made.sections.map(({ id }) => id)).toEqual(['section-1', 'section-2']);
    expect(made.items.map(({ phase }) => phase)).toEqual([null, 'section-2', 'section-1']);
    expect(withoutSection(made.items, 'section-2').map(({ phase }) => phase)).toEqual([
      null,
      null,
      'section-1',
    ]);
  });
  it('taken over below others keep their sections and rounds apart from theirs', () => {
    const there = {
      sections: [{ id: 'section-1', name: 'Own', minutes: null }],
      items: [item('a', { circuit })],
    };
    const added = {
      sections: [{ id: 'section-1', name: 'Taken', minutes: 4 }],
      items: [item('b', { phase: 'section-1', circuit })],
    };
    const { sections, items } = clearedOf(there, added);
    expect(sections[0]).toMatchObject({ id: 'section-1-2', name: 'Taken' });
    expect(items[0]).toMatchObject({ phase: 'section-1-2', circuit: { id: 'c-2', rounds: 3 } });
  });
  it('one line can be on the clock by itself, and stays so through a move; its pace can be taken away again', () => {
    const alone = onTheClock([item('a'), item('b')], 1);
    expect(alone[1]).toMatchObject({ sets: 1, circuit: { pace: { by: 'every', seconds: 60 } } });
    expect(mendCircuits(alone)).toEqual(alone);
    const plain = changeCircuit(alone, alone[1]?.circuit?.id ?? '', { pace: undefined });
    expect(plain[1]?.circuit).not.toHaveProperty('pace');
    expect(mendCircuits(plain)[1]?.circuit).toBeUndefined();
  });
});
