import type { Reference } from '@yonder/core/reference';
import type { Database } from './db/database.ts';

/** What features need from outside; tests pass their own clock. */
export interface Deps {
  readonly database: Database;
  readonly reference: Reference;
  /** Today as an ISO day, in UTC. */
  readonly today: () => string;
}
