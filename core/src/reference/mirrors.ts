import { withLadderMirrors } from './ladderMirrors.ts';
import type { StoredDrill } from './ladderMirrors.ts';
import type { Demand, ReferenceData, Restriction } from './types.ts';

type StoredDemand = Omit<Demand, 'demands'> & { demands: Omit<Demand['demands'][number], 'informs'>[] };

/** The reference as it is kept: what a test informs is said once, with the test; a drill's place once, with its ladder. */
export type StoredReference = Omit<ReferenceData, 'restrictions' | 'demands' | 'drills'> & {
  drills: StoredDrill[];
  restrictions: Omit<Restriction, 'tests'>[];
  demands: StoredDemand[];
};

/**
 * Adds what follows from `informs` of the tests (the tests of each restriction, and what each demand informs) and from
 * the ladders (level, neighbours, demand and doors of each drill).
 */
export function withMirrors(stored: StoredReference): ReferenceData {
  const informs = new Map(stored.tests.map((test) => [test.id, test.informs]));
  return {
    ...stored,
    drills: withLadderMirrors(stored.drills, stored.ladders),
    restrictions: stored.restrictions.map((restriction) => ({
      ...restriction,
      tests: stored.tests.filter((test) => test.informs.includes(restriction.id)).map((test) => test.id),
    })),
    demands: stored.demands.map((demand) => ({
      ...demand,
      demands: demand.demands.map((row) => ({ ...row, informs: [...(informs.get(row.test) ?? [])] })),
    })),
  };
}
