import type { Reference } from '@yonder/core/reference';
import type { Builds } from './compute/builds.ts';
import type { Database } from './db/database.ts';

/** What features need from outside; tests pass their own clock. */
export interface Deps {
  readonly database: Database;
  readonly reference: Reference;
  /** Routine builds on threads of their own. */
  readonly builds: Builds;
  /** Today as an ISO day, in UTC. */
  readonly today: () => string;
}
