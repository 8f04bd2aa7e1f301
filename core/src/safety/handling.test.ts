import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { handlingAsksFor, handlingForbids } from '../reference/handling.ts';
import { caseOf, TODAY } from '../testing/cases.ts';
import { routineSafetyFaults } from './index.ts';
import { precautionsOfDrill } from './precautions.ts';
import { eachOf } from '../testing/eachOf.ts';

const { drills, precautions } = bundledReference.data;
const active = (id: string) => [
  { id, until: null, reviewDue: false, cleared: false, region: null, side: null, setBy: null, reason: null },
];
const outcome = (drill: (typeof drills)[0], id: string) => {
  const { forbidden, handling } = precautionsOfDrill(bundledReference, drill, active(id));
  if (forbidden.length > 0) return 'out';
  const own = drill.precautionOverrides.some((o) => o.precaution === id);
  return handling.length > 0 ? (own ? 'softened' : 'with care') : 'as usual';
};

describe('the words of a precaution and what is offered under it', () => {
  const said = precautions.filter((p) => p.forbids);
  it('are kept as data for most of what forbids a position, a load or a grip', () => {
    expect(said.length).toBeGreaterThanOrEqual(20);
  });
  it.each(said.map((p) => [p.id, p] as const))(
    '%s: nothing that its handling forbids is offered, but for what softens it by name',
    (id, precaution) => {
      const against = drills.filter((drill) => handlingForbids(precaution, drill));
      expect(against.length).toBeGreaterThan(0);
      const offered = against.filter((drill) => !['out', 'softened'].includes(outcome(drill, id)));
      expect(offered.map((drill) => `${drill.id}: ${outcome(drill, id)}`)).toEqual([]);
    },
  );
  it.each(precautions.filter((p) => p.asksFor).map((p) => [p.id, p] as const))(
    '%s: nothing that its handling asks for is out',
    (id, precaution) => {
      const asked = drills.filter((drill) => handlingAsksFor(precaution, drill));
      expect(asked.length).toBeGreaterThan(0);
      const out = asked.filter((drill) => outcome(drill, id) === 'out');
      expect(out.map((drill) => drill.id)).toEqual([]);
    },
  );
  it('a drill that is what a mild precaution forbids is out, and says so by that precaution alone', () => {
    const jump = bundledReference.drills.get('squat-jump-stick');
    if (!jump) throw new Error('no jump');
    const { forbidden, handling } = precautionsOfDrill(
      bundledReference,
      jump,
      active('patellar-tendon-irritable'),
    );
    expect(forbidden).toEqual([{ precaution: 'patellar-tendon-irritable', severity: 'exclude' }]);
    expect(handling).toEqual([]);
  });
  it('what excludes a drill outright is also listed as a precaution of it', () => {
    for (const drill of eachOf(drills))
      expect(drill.contraindications, drill.id).toEqual(
        expect.arrayContaining(drill.precautionExcludes ?? []),
      );
  });
});

describe('a set-up that a precaution rules out', () => {
  const setups = precautions.flatMap((p) => (p.forbidsSetup ?? []).map((out) => ({ id: p.id, ...out })));
  it('is one that drills have', () => {
    expect(setups.length).toBeGreaterThan(0);
    for (const { variable, steps } of eachOf(setups))
      expect(
        drills.some((d) =>
          d.setupVariables.some((v) => v.id === variable && v.steps.some((s) => steps.includes(s))),
        ),
      ).toBe(true);
  });
  const eyes = (step: string, id: string, drill = 'single-leg-balance') => {
    const athlete = caseOf({
      athlete: { precautions: [{ id, until: null, clearance: null, ended: null }] },
    }).athlete;
    return routineSafetyFaults(
      bundledReference,
      [{ drill, side: 'left', setup: { eyes: step } }],
      athlete,
      TODAY,
    ).map(({ rule, about }) => ({ rule, about }));
  };
  it('is refused on its drill, which stays with another', () => {
    const out = { rule: 'precaution-exclude', about: 'eyes-closed-fall-risk' };
    expect(eyes('closed', 'eyes-closed-fall-risk')).toEqual([out]);
    expect(eyes('open', 'eyes-closed-fall-risk')).toEqual([]);
    expect(eyes('closed', 'no-impact')).toEqual([]);
    expect(eyes('closed', 'eyes-closed-fall-risk', 'single-leg-balance-eyes-closed')).toEqual([out]);
  });
});
