import { describe, expect, it } from 'vitest';
import { bundledData, bundledReference } from './bundled.ts';
import { ladderSteps } from './index.ts';
import { eachOf } from '../testing/eachOf.ts';

const steps = (id: string) => {
  const ladder = bundledReference.ladders.get(id);
  if (!ladder) throw new Error(id);
  return ladderSteps(bundledReference, ladder);
};
const by = (id: string, to: string) =>
  steps(id)
    .find((step) => step.to === to)
    ?.harder.map((h) => h.by) ?? [];

describe('what makes the next level harder', () => {
  it.each([
    ['calf-strength', 'single-leg-heel-raise', 'load'],
    ['calf-strength', 'two-up-one-down', 'stability'],
    ['plank', 'long-lever-plank', 'lever'],
    ['ankle-balance', 'single-leg-balance-head-turns', 'attention'],
    ['ankle-balance', 'single-leg-balance', 'stability'],
    ['hinge-strength', 'kettlebell-hinge', 'load'],
  ] as const)('%s, up to %s: %s', (ladder, to, kind) => {
    expect(by(ladder, to)).toContain(kind);
  });
  it('says something for every step of every ladder', () => {
    for (const ladder of eachOf(bundledData.ladders)) {
      const own = ladderSteps(bundledReference, ladder);
      expect(own).toHaveLength(ladder.drills.length - 1);
      expect(own.filter(({ harder }) => harder.length === 0).map(({ to }) => to)).toEqual([]);
    }
  });
});
