import { beforeAll, describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { rehearsalTag } from '../reference/index.ts';
import { caseOf } from '../testing/cases.ts';
import { buildCase, drillOf, prepareCase } from '../testing/prepared.ts';
import { testSolver } from '../testing/solver.ts';
import type { MipSolver } from './index.ts';
import { eachOf } from '../testing/eachOf.ts';

const ENDS = 0.7;
const MINUTES = [5, 10, 20];
const KIT = [
  'wall',
  'long-band',
  'step',
  'ball',
  'small-ball',
  'pull-up-bar',
  'stationary-bike',
  'sport-gear',
];

let solver: MipSolver;
beforeAll(async () => {
  solver = await testSolver();
});

const inputFor = (pattern: string, minutes: number) =>
  caseOf({
    athlete: { trainingYears: 4 },
    request: { mode: 'prepare', pattern, minutes, kit: KIT } as never,
  });

describe('what rehearses each action', () => {
  const { patterns } = bundledReference.data;
  const row = (id: string) => {
    const open = new Set(
      prepareCase(bundledReference, inputFor(id, 20))
        .problem.options.map(({ drill }) => drill)
        .filter((drill) => rehearsalTag(bundledReference, drillOf(drill), id) >= ENDS),
    ).size;
    const ends = MINUTES.map((minutes) => {
      const items = buildCase(bundledReference, inputFor(id, minutes), solver).routine?.items ?? [];
      return items
        .slice(-2)
        .map(({ drill }) => drill)
        .filter((drill) => rehearsalTag(bundledReference, drillOf(drill), id) >= ENDS);
    });
    return { id, open, ends };
  };
  it('is open to a trained athlete whom nobody tested, and ends a preparation of any length; printed', () => {
    const rows = patterns.map(({ id }) => row(id));
    process.stdout.write(
      rows
        .map(({ id, open, ends }) => `| ${[id, open, ...ends.map((e) => e.join(', '))].join(' | ')} |`)
        .join('\n'),
    );
    for (const { id, open, ends } of eachOf(rows)) {
      expect(open, id).toBeGreaterThanOrEqual(2);
      for (const end of eachOf(ends)) expect(end, id).not.toEqual([]);
    }
  }, 120_000);
});
