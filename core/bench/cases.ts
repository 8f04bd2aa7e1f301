import { seededRandom } from '../src/random/index.ts';
import type { Case, ScreeningResult } from '../src/domain/index.ts';
import type { Reference, Test } from '../src/reference/index.ts';
import { SOME_KIT } from '../src/testing/randomLibrary.ts';
import { caseSchema } from '../src/schemas/index.ts';

function trial(test: Test, random: () => number): number {
  const { low, high } = test.reference;
  // From clearly short to clearly enough: two real changes around the usual band.
  const value = low - 1.6 * test.mdc95.value + random() * (high - low + 2 * test.mdc95.value);
  const clamped = Math.min(test.plausible.max, Math.max(test.plausible.min, value));
  return test.unit === 'reps' ||
    test.unit.startsWith('grade') ||
    test.unit.startsWith('points') ||
    test.unit === 'nrs-0-10'
    ? Math.round(clamped)
    : Number(clamped.toFixed(2));
}

/**
 * An athlete whose routine should serve a drawn number of restrictions (1 to 10) of a made-up library, in a
 * stand-alone session or a preparation, with most of the kit, up to two pins' worth of bans and no other rules.
 */
export function libraryCase(reference: Reference, seed: number, minutes: number): Case {
  const random = seededRandom(seed);
  const wanted = 1 + Math.floor(random() * 10);
  const pool = reference.data.restrictions;
  const judgements = Array.from({ length: wanted }, () => pool[Math.floor(random() * pool.length)]).flatMap(
    (restriction) =>
      restriction
        ? [
            {
              restriction: restriction.id,
              side:
                restriction.laterality === 'central'
                  ? ('central' as const)
                  : random() < 0.5
                    ? ('left' as const)
                    : ('right' as const),
              verdict: 'seen' as const,
              degree: (['slight', 'clear', 'marked'] as const)[Math.floor(random() * 3)] ?? 'clear',
              by: 'bench',
              date: '2027-02-27',
            },
          ]
        : [],
  );
  const test = reference.tests.get('wblt-distance');
  return caseSchema.parse({
    format: 'yonder-ridge-case/1',
    today: '2027-03-01',
    athlete: { birthDate: '2000-01-01', bodyMassKg: 70, trainingYears: 5 },
    judgements,
    screenings: test
      ? [
          {
            date: '2027-02-27',
            results: [
              { test: test.id, side: 'left', trials: [14] },
              { test: test.id, side: 'right', trials: [14] },
            ],
          },
        ]
      : [],
    request: {
      mode: random() < 0.5 ? 'prepare' : 'build',
      minutes,
      maxDrills: minutes > 12 ? 12 : 8,
      kit: SOME_KIT.filter(() => random() < 0.7),
      bans: reference.data.drills
        .filter(() => random() < 0.01)
        .map((drill) => drill.id)
        .slice(0, 4),
    },
  });
}

/** A seeded athlete screened with a number of tests, asking for a preparation or a stand-alone session. */
export function benchCase(reference: Reference, seed: number, minutes: number, tests: number): Case {
  const random = seededRandom(seed);
  const pool = reference.data.tests.filter((test) => !test.derivedFrom);
  const chosen = Array.from({ length: tests }, () => pool[Math.floor(random() * pool.length)]).filter(
    (t) => t !== undefined,
  );
  const results: ScreeningResult[] = [...new Set(chosen)].flatMap((test): ScreeningResult[] =>
    test.sides === 'central'
      ? [{ test: test.id, side: 'central', trials: [trial(test, random)] }]
      : [
          { test: test.id, side: 'left', trials: [trial(test, random)] },
          { test: test.id, side: 'right', trials: [trial(test, random)] },
        ],
  );
  const demands = reference.data.demands;
  return caseSchema.parse({
    format: 'yonder-ridge-case/1',
    today: '2027-03-01',
    athlete: {
      birthDate: '2000-01-01',
      bodyMassKg: 70,
      trainingYears: 5,
      tasks: [{ id: demands[Math.floor(random() * demands.length)]?.id ?? 'sprint' }],
    },
    screenings: [{ date: '2027-02-27', results }],
    request: {
      mode: random() < 0.6 ? 'prepare' : 'build',
      minutes,
      maxDrills: minutes > 12 ? 10 : null,
      kit: SOME_KIT.filter(() => random() < 0.7),
    },
  });
}
