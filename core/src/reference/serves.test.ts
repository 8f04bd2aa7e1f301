import { describe, expect, it } from 'vitest';
import { COVER_MATCH, coversRestriction, reachesSide } from './index.ts';

describe('what a drill covers', () => {
  const drill = (match: number) => ({ serves: [{ restriction: 'ankle-dorsiflexion-limit', match }] });
  it('begins at the match of the rulings and not below', () => {
    expect(COVER_MATCH).toBe(0.4);
    expect(coversRestriction(drill(0.4), 'ankle-dorsiflexion-limit')).toBe(true);
    expect(coversRestriction(drill(0.39), 'ankle-dorsiflexion-limit')).toBe(false);
    expect(coversRestriction(drill(1), 'knee-extension-limit')).toBe(false);
  });
});

describe('the side a drill reaches', () => {
  it.each([
    ['left', 'left', true],
    ['left', 'right', false],
    ['both', 'right', true],
    ['left', 'central', true],
  ] as const)('done %s, one side at a time, needed %s: %s', (side, need, reached) => {
    expect(reachesSide({ unilateral: true }, side, need)).toBe(reached);
  });
  it('is either when both sides work at once', () => {
    expect(reachesSide({ unilateral: false }, 'left', 'right')).toBe(true);
  });
});
