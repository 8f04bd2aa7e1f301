import type { Case, Region } from '@yonder/core/domain';
import { sidesOfTest } from '@yonder/core/findings';
import type { Reference, Test } from '@yonder/core/reference';
import { isBlocked, testAllowed, YOUTH_AGE } from '@yonder/core/safety';
import type { SafetyState } from '@yonder/core/safety';

/** Does a chosen task ask for the test, or for a composite that is computed from it? */
export function askedByTask(reference: Reference, input: Case, test: string): boolean {
  return input.athlete.tasks.some((task) =>
    reference.demands
      .get(task.id)
      ?.demands.some((d) => d.test === test || reference.tests.get(d.test)?.derivedFrom?.includes(test)),
  );
}

/**
 * Tests worth offering for a region today: its own and whole-body ones that inform it, asked-for and known ones
 * first. Blocked regions, unticked tests after an operation and tests not meant for the young are left out.
 */
export function testsOfRegion(
  reference: Reference,
  input: Case,
  safety: SafetyState,
  region: Region,
): Test[] {
  // Only earlier visits count, so that the order stays as it is while results come in.
  const earlier = input.screenings.filter((s) => s.date < input.today);
  const known = new Set(earlier.flatMap((s) => s.results.map((r) => r.test)));
  const informs = (test: Test) =>
    test.region === region ||
    (test.region === 'whole-body' &&
      test.informs.some((id) => reference.restrictions.get(id)?.region === region));
  const offered = (test: Test) =>
    !test.derivedFrom &&
    !isBlocked(safety.blocks, test.region) &&
    !isBlocked(safety.blocks, region) &&
    (safety.age >= YOUTH_AGE || test.youthOk) &&
    sidesOfTest(test).some((side) => testAllowed(safety.gates, test, side));
  const rank = (test: Test) =>
    (askedByTask(reference, input, test.id) ? 0 : 2) +
    (known.has(test.id) ? 0 : 1) +
    (test.region === region ? 0 : 0.5);
  return reference.data.tests
    .filter((test) => informs(test) && offered(test))
    .map((test, index) => ({ test, index }))
    .sort((a, b) => rank(a.test) - rank(b.test) || a.index - b.index)
    .map(({ test }) => test);
}
