import { randomUUID } from 'node:crypto';
import { ownDrillOf } from '@yonder/core/formats';
import type { Drill, OwnDrill } from '@yonder/core/reference';

/** The drill as a practice would copy it to get round a rule: every trait that binds taken off. */
export function loosened(drill: Drill): OwnDrill {
  const name = randomUUID().slice(0, 8);
  return {
    ...ownDrillOf(drill, `own-${name}`, `Copy ${name}`),
    contraindications: [],
    youthOk: true,
    loadRegions: [],
    equivalents: [],
    ladder: `own-${name}`,
    ladderName: 'Loose',
    level: 1,
  };
}
