import fc from 'fast-check';
import type { Case, ScreeningResult, Side } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import type { Test } from '../reference/index.ts';
import { caseOf } from './cases.ts';

const measured = bundledReference.data.tests.filter((test) => !test.derivedFrom);

/** A plausible value of a test, on a grid fine enough for its unit. */
function valueOf(test: Test): fc.Arbitrary<number> {
  const { min, max } = test.plausible;
  const ordinal =
    test.unit === 'grade-0-3' ||
    test.unit === 'points-0-5' ||
    test.unit === 'nrs-0-10' ||
    test.unit === 'reps';
  if (ordinal) return fc.integer({ min, max });
  // Values cluster around the reference band, where findings change hands.
  const low = Math.max(min, test.reference.low - 2 * test.mdc95.value);
  const high = Math.min(max, test.reference.high + 2 * test.mdc95.value);
  return fc.integer({ min: 0, max: 400 }).map((k) => low + ((high - low) * k) / 400);
}

function resultsOf(test: Test): fc.Arbitrary<ScreeningResult[]> {
  const one = (side: Side) =>
    valueOf(test).map((value): ScreeningResult => ({ test: test.id, side, trials: [value] }));
  return test.sides === 'central' ? one('central').map((r) => [r]) : fc.tuple(one('left'), one('right'));
}

const region = fc.constantFrom(...bundledReference.data.regions.filter((r) => r.joint).map((r) => r.id));

const athlete = fc.record({
  birthDate: fc.constantFrom('2001-05-02', '1988-11-30', '2010-01-15', '2012-06-01'),
  trainingYears: fc.integer({ min: 0, max: 12 }),
  bodyMassKg: fc.option(fc.integer({ min: 45, max: 100 }), { nil: null }),
  tasks: fc.uniqueArray(
    fc.record({
      id: fc.constantFrom(...bundledReference.data.demands.map((d) => d.id)),
      lead: fc.constantFrom('left' as const, 'right' as const, 'either' as const),
    }),
    { maxLength: 3, selector: (task) => task.id },
  ),
  injuries: fc.array(
    fc.record({
      region,
      side: fc.constantFrom('left' as const, 'right' as const),
      date: fc.constantFrom('2025-06-01', '2026-05-01', '2026-12-20'),
      operated: fc.boolean(),
    }),
    { maxLength: 2 },
  ),
  precautions: fc.uniqueArray(fc.constantFrom(...bundledReference.data.precautions.map((p) => p.id)), {
    maxLength: 4,
  }),
  redFlags: fc.uniqueArray(
    fc.constantFrom('foot-locking', 'knee-giving', 'shoulder-nerve', 'gen-bone-stress-high-risk'),
    {
      maxLength: 1,
    },
  ),
});

/** A screened case of any region; with precautions and stop signs when `guarded`. */
export function arbitraryCase(guarded: boolean): fc.Arbitrary<Case> {
  const tests = fc.uniqueArray(fc.constantFrom(...measured), {
    minLength: 1,
    maxLength: 8,
    selector: (t) => t.id,
  });
  const results = tests.chain((list) => fc.tuple(...list.map(resultsOf))).map((pairs) => pairs.flat());
  return fc
    .record({
      athlete,
      results,
      mode: fc.constantFrom('prepare' as const, 'build' as const, 'restore' as const),
      minutes: fc.integer({ min: 3, max: 25 }),
      kit: fc.subarray(['wall', 'step', 'mini-band', 'long-band', 'foam-roller', 'bench', 'towel', 'box']),
      stretch: fc.constantFrom('avoid', 'short-then-dynamic', 'last-step'),
      strength: fc.constantFrom('after', 'small-dose'),
    })
    .map((drawn) =>
      caseOf({
        athlete: {
          ...drawn.athlete,
          injuries: guarded
            ? drawn.athlete.injuries
            : drawn.athlete.injuries.map((i) => ({ ...i, operated: false })),
          precautions: guarded
            ? drawn.athlete.precautions.map((id) => ({ id, until: null, clearance: null, ended: null }))
            : [],
          redFlags: guarded
            ? drawn.athlete.redFlags.map((id) => ({
                id,
                answer: true,
                region: null,
                side: null,
                clearance: null,
              }))
            : [],
        },
        screenings: [{ date: '2027-02-20', results: drawn.results }],
        schools: { 'static-stretch-before': drawn.stretch, 'sequence-before-strength': drawn.strength },
        request: { mode: drawn.mode, minutes: drawn.minutes, kit: drawn.kit },
      }),
    );
}

/** The case with left and right exchanged everywhere. */
export function mirrored(input: Case): Case {
  const swap = <T extends string>(side: T): T =>
    (side === 'left' ? 'right' : side === 'right' ? 'left' : side) as T;
  return {
    ...input,
    athlete: {
      ...input.athlete,
      tasks: input.athlete.tasks.map((task) => ({ ...task, lead: swap(task.lead) })),
      injuries: input.athlete.injuries.map((injury) => ({ ...injury, side: swap(injury.side) })),
    },
    screenings: input.screenings.map((screening) => ({
      ...screening,
      results: screening.results.map((r) => ({ ...r, side: swap(r.side) })),
    })),
  };
}
