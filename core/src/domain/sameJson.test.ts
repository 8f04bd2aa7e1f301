import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sameJson } from './sameJson.ts';
import { forAll } from '../testing/forAll.ts';

/** The same value with every object's keys the other way round, as a database may give it back. */
function turned(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(turned);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .reverse()
      .map(([key, entry]) => [key, turned(entry)]),
  );
}

describe('the same once stored', () => {
  it('whatever the order of keys', () => {
    forAll(fc.property(fc.jsonValue(), (value) => sameJson(value, turned(value))));
  });
  it.each([
    [{ a: 1 }, { a: 1, b: undefined }, true],
    [undefined, null, true],
    [[1, 2], [2, 1], false],
    [{ a: 1 }, { a: '1' }, false],
    [{ a: null }, {}, false],
  ])('%o and %o: %s', (a, b, same) => {
    expect(sameJson(a, b)).toBe(same);
  });
});
