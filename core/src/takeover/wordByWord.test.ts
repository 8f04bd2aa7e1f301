import { describe, expect, it } from 'vitest';
import { assessCase } from '../assess/index.ts';
import { prepareBuild } from '../builder/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { caseOf, item } from '../testing/cases.ts';
import { wordByWord } from './index.ts';

const taken = (
  athlete: object,
  items = [item('cat-camel'), item('pogo-hop', { measure: 'contacts', phase: 'legs' })],
) => {
  const input = caseOf({ athlete: { birthDate: '1999-01-01', ...athlete } } as never);
  return wordByWord(prepareBuild(assessCase(bundledReference, input), input.request), items);
};

describe('a protocol taken word by word', () => {
  it('is as it is written where nothing stands against it', () => {
    const items = [item('cat-camel', { amount: 77 }), item('own-words', { words: 'with the group' })];
    expect(taken({}, items)).toEqual({ items, held: [] });
  });
  it('holds what safety keeps out: it stays in its part as a note of no seconds, with the nearest allowed', () => {
    const { items, held } = taken({ precautions: [{ id: 'no-impact' }] });
    expect(held).toMatchObject([{ index: 1, fault: { rule: 'precaution-exclude', about: 'no-impact' } }]);
    expect(held[0]?.instead && bundledReference.drills.get(held[0].instead.drill)?.loadClass).not.toBe(
      'impact',
    );
    expect(items[1]).toMatchObject({
      drill: 'own-words',
      phase: 'legs',
      amount: 0,
      words: 'Not now: Two-leg pogo hops',
    });
    expect(items[0]).toEqual(item('cat-camel'));
  });
});
