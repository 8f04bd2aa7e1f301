import { describe, expect, it } from 'vitest';
import { assessCase } from '../assess/index.ts';
import type { Case } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import type { Drill } from '../reference/index.ts';
import { drillSafety } from '../safety/index.ts';
import { caseOf } from '../testing/cases.ts';
import { levelState } from './index.ts';

const athlete = (over: Partial<Case['athlete']>) => caseOf({ athlete: { trainingYears: 4, ...over } });
const task = (id: string) => ({ tasks: [{ id, lead: 'either' as const }] });
const precaution = (id: string) => ({ precautions: [{ id, until: null, clearance: null, ended: null }] });

/** Eight made-up athletes: from a newcomer to one with a common precaution. */
const ATHLETES: Readonly<Record<string, Case>> = {
  newcomer: athlete({ trainingYears: 0 }),
  'trained climber': athlete(task('climbing-high-step')),
  'trained kayaker': athlete({}),
  'fell runner': athlete(task('fell-running-descent')),
  'ski mountaineer': athlete({ trainingYears: 8 }),
  'twelve-year-old': athlete({ birthDate: '2015-01-10', trainingYears: 2 }),
  'operated knee': athlete({
    injuries: [{ region: 'knee', side: 'left', date: '2026-11-01', operated: true }],
  }),
  'no impact': athlete(precaution('no-impact')),
};

/** Ladders that nobody comes to without a practitioner's word or known exposure, and why. */
const BY_HAND: Readonly<Record<string, string>> = {
  'inverted-decompression': 'hanging head down is offered by hand alone',
  'inverted-hang-turn': 'as above',
  reaction: 'needs a second person',
};

/**
 * What an athlete can come to in time: open at the start, or once tests are good enough and the levels before were done
 * often enough. Nobody is placed by hand here.
 */
function reachable(input: Case): Set<string> {
  const context = assessCase(bundledReference, input);
  const offered = bundledReference.data.drills.filter(
    (drill) => drillSafety(bundledReference, drill, context.safety).forbidden.length === 0,
  );
  const reached = new Set(
    offered
      .filter((drill) =>
        (['both', 'left', 'right'] as const).some((side) => levelState(context, drill, side).open),
      )
      .map((drill) => drill.id),
  );
  const opens = (drill: Drill) => {
    const criteria = drill.entryCriteria.filter((c) => c.test !== undefined || c.drill !== undefined);
    const met = criteria.map((c) => c.test !== undefined || reached.has(c.drill ?? ''));
    return (
      criteria.length > 0 &&
      criteria.every((c, i) => met[i] || (c.either !== undefined && met.includes(true)))
    );
  };
  for (let before = -1; before !== reached.size;) {
    before = reached.size;
    for (const drill of offered) if (opens(drill)) reached.add(drill.id);
  }
  return reached;
}

describe('which drills anybody can come to without being placed by hand', () => {
  const reach = Object.entries(ATHLETES).map(([name, input]) => ({ name, drills: reachable(input) }));
  const nobody = bundledReference.data.drills.filter(({ id }) =>
    reach.every(({ drills }) => !drills.has(id)),
  );

  it('are most of them; what nobody reaches is printed, by ladder', () => {
    const ladders = [...new Set(nobody.map((drill) => drill.ladder))];
    const of = (ladder: string) => nobody.filter((drill) => drill.ladder === ladder).map((drill) => drill.id);
    process.stdout.write(
      [
        ...reach.map(
          ({ name, drills }) => `${name}: ${drills.size} of ${bundledReference.data.drills.length}`,
        ),
        ...ladders.map((ladder) => `nobody, ${ladder}: ${of(ladder).join(', ')}`),
      ].join('\n'),
    );
    expect(ladders.sort()).toEqual(Object.keys(BY_HAND));
  });
});
