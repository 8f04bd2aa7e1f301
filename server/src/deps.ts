import type { Assessment } from '@yonder/core/assess';
import type { Reference } from '@yonder/core/reference';
import type { Compute } from './compute/compute.ts';
import type { Database } from './db/database.ts';
import type { PracticeSettings } from './work/practice.ts';
import { Recent } from './work/recent.ts';

/** What features need from outside; tests pass their own clock. */
export interface Deps {
  readonly database: Database;
  readonly reference: Reference;
  /** Heavy work on threads of its own. */
  readonly compute: Compute;
  readonly clock: () => Date;
  readonly practices: Recent<PracticeSettings>;
  readonly assessments: Recent<Assessment>;
  /** Records as they were answered, as JSON. */
  readonly cases: Recent<string>;
}

/** Everything a server process needs, with empty caches. */
export function createDeps(given: Pick<Deps, 'database' | 'reference' | 'compute' | 'clock'>): Deps {
  return { ...given, practices: new Recent(50), assessments: new Recent(40), cases: new Recent(100) };
}
