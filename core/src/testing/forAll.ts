import fc from 'fast-check';
import { inject } from 'vitest';

declare module 'vitest' {
  export interface ProvidedContext {
    /** How the properties of this run are drawn: one seed for all of them, and so many times their own number of cases. */
    properties: { readonly seed: number; readonly times: number };
  }
}

/** Milliseconds after which a property ends with what it has: shrinking a counterexample never outlasts it. */
const LIMIT_MS = 10_000;

/**
 * A property over seeded cases, `runs` of them in `npm test` and more under `npm run deep`. A failure names the seed and
 * the path to its case: `YONDER_SEED=seed npx vitest run …` draws it again. Counterexamples once found are `kept` and
 * tried before anything is drawn.
 */
export function forAll<Drawn>(
  property: fc.IProperty<Drawn> | fc.IPropertyWithHooks<Drawn>,
  runs = 100,
  kept: Drawn[] = [],
): void {
  const { seed, times } = inject('properties');
  fc.assert(property, {
    seed,
    numRuns: Math.ceil(runs * times) + kept.length,
    examples: kept,
    interruptAfterTimeLimit: LIMIT_MS * Math.max(1, times),
  });
}
