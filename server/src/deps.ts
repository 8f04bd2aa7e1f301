import type { Assessment } from '@yonder/core/assess';
import type { DoorOfRun } from '@yonder/core/contracts';
import type { Reference } from '@yonder/core/reference';
import { LRUCache } from 'lru-cache';
import type { Compute } from './compute/compute.ts';
import type { Database } from './db/database.ts';
import type { Printer } from './features/printing/printer.ts';
import type { PracticeSettings } from './work/practice.ts';

/** What features need from outside; tests pass their own clock. */
export interface Deps {
  readonly database: Database;
  readonly reference: Reference;
  /** Heavy work on threads of its own. */
  readonly compute: Compute;
  /** PDFs, on a thread of their own. */
  readonly printer: Printer;
  readonly clock: () => Date;
  // Things worked out, each under a key that changes whenever the thing would: never the truth.
  readonly practices: LRUCache<string, PracticeSettings>;
  readonly assessments: LRUCache<string, Assessment>;
  /** What runs that are open may still do: each of them asks every few seconds. */
  readonly doors: LRUCache<string, DoorOfRun>;
  /** Records as they were answered, as JSON. */
  readonly cases: LRUCache<string, string>;
}

/** Everything a server process needs, with empty caches. */
export function createDeps(
  given: Pick<Deps, 'database' | 'reference' | 'compute' | 'printer' | 'clock'>,
): Deps {
  return {
    ...given,
    practices: new LRUCache({ max: 50 }),
    assessments: new LRUCache({ max: 40 }),
    doors: new LRUCache({ max: 1000 }),
    cases: new LRUCache({ max: 100 }),
  };
}
