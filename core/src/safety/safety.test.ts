import { describe, expect, it } from 'vitest';
import type { Case } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { caseOf, TODAY } from '../testing/cases.ts';
import {
  activePrecautions,
  drillSafety,
  emergencyOpen,
  openBlocks,
  protocolGates,
  gateTopics,
  routineSafetyFaults,
  safetyState,
  testAllowed,
  touchedRegions,
} from './index.ts';
import { eachOf } from '../testing/eachOf.ts';

const drillOf = (id: string) => {
  const drill = bundledReference.drills.get(id);
  if (!drill) throw new Error(`no drill ${id}`);
  return drill;
};
type Precaution = Case['athlete']['precautions'][0];
const precaution = (id: string, over: Partial<Precaution> = {}): Precaution => ({
  id,
  until: null,
  clearance: null,
  ended: null,
  ...over,
});
type Flag = Case['athlete']['redFlags'][0];
const flag = (id: string, over: Partial<Flag> = {}): Flag => ({
  id,
  answer: true,
  region: null,
  side: null,
  clearance: null,
  ...over,
});
const athleteWith = (athlete: Partial<Case['athlete']>) => caseOf({ athlete }).athlete;
const judge = (drill: string, athlete: Partial<Case['athlete']>) =>
  drillSafety(bundledReference, drillOf(drill), safetyState(bundledReference, athleteWith(athlete), TODAY));
const rules = (drill: string, athlete: Partial<Case['athlete']>) =>
  judge(drill, athlete).forbidden.map((f) => f.rule);

describe('precautions', () => {
  it('exclude forbids, whatever else', () => {
    expect(rules('knee-to-wall-rock', { precautions: [precaution('acute-ankle-sprain')] })).toEqual([
      'precaution-exclude',
    ]);
    expect(rules('cat-camel', { precautions: [precaution('acute-ankle-sprain')] })).toEqual([]);
  });

  it('modify offers the drill with its handling text', () => {
    const id = 'achilles-insertional-irritation';
    const safety = judge('knee-to-wall-rock', { precautions: [precaution(id)] });
    expect(safety.forbidden).toEqual([]);
    expect(safety.handling).toEqual([
      { precaution: id, text: bundledReference.precautions.get(id)?.handling },
    ]);
  });

  it('clearance hides until a dated note, then offers with the handling text', () => {
    const pelvic = bundledReference.data.drills.find((d) =>
      d.contraindications.includes('pelvic-floor-symptoms'),
    );
    const id = pelvic?.id ?? '';
    expect(rules(id, { precautions: [precaution('pelvic-floor-symptoms')] })).toEqual([
      'precaution-clearance',
    ]);
    const clearance = { by: 'Dr V. Ness', date: '2027-02-28', scope: 'light work' };
    const cleared = judge(id, { precautions: [precaution('pelvic-floor-symptoms', { clearance })] });
    expect(cleared.forbidden).toEqual([]);
    expect(cleared.handling).toHaveLength(1);
    const later = { ...clearance, date: '2027-03-02' };
    expect(rules(id, { precautions: [precaution('pelvic-floor-symptoms', { clearance: later })] })).toEqual([
      'precaution-clearance',
    ]);
  });

  it('only a drill’s own listed override softens an exclusion', () => {
    const softened = bundledReference.data.drills.filter((d) => d.precautionOverrides.length > 0);
    expect(softened.length).toBeGreaterThan(0);
    for (const drill of eachOf(softened)) {
      for (const override of eachOf(drill.precautionOverrides)) {
        const safety = judge(drill.id, { precautions: [precaution(override.precaution)] });
        // A hold whose least is longer than the softening allows is out after all.
        if (
          (override.limits?.holdSeconds ?? 99) < drill.dose.amount.min &&
          drill.dose.measure === 'hold-seconds'
        ) {
          expect(safety.forbidden, drill.id).toMatchObject([{ about: override.precaution }]);
          continue;
        }
        expect(safety.forbidden, drill.id).toEqual([]);
        expect(safety.handling.map((h) => h.text)).toContainEqual(expect.stringContaining(override.handling));
      }
    }
  });

  it('bind past their review date and end only when a named person ends them', () => {
    const overdue = athleteWith({ precautions: [precaution('no-impact', { until: '2027-02-01' })] });
    expect(activePrecautions(overdue, TODAY)).toMatchObject([{ id: 'no-impact', reviewDue: true }]);
    const until = (day: string | null) =>
      activePrecautions(athleteWith({ precautions: [precaution('no-impact', { until: day })] }), TODAY)[0]
        ?.reviewDue;
    expect([until(TODAY), until('2027-02-28'), until(null)]).toEqual([false, true, false]);
    const ended = athleteWith({
      precautions: [precaution('no-impact', { ended: { by: 'R. Halloran', date: TODAY } })],
    });
    expect(activePrecautions(ended, TODAY)).toEqual([]);
    expect(activePrecautions(ended, '2027-02-28')).toHaveLength(1);
  });

  it('an open bone-stress sign acts as one', () => {
    const redFlags = [flag('gen-bone-stress', { region: 'knee' })];
    expect(activePrecautions(athleteWith({ redFlags }), TODAY).map((p) => p.id)).toEqual([
      'bone-stress-suspected',
    ]);
    const jump = bundledReference.data.drills.find(
      (d) => d.contraindications.includes('bone-stress-suspected') && !touchedRegions(d).has('knee'),
    );
    if (jump) expect(rules(jump.id, { redFlags })).toContain('precaution-exclude');
  });
});

describe('stop-and-refer signs', () => {
  it('of a region block every drill that uses it, also as a secondary or loaded region', () => {
    const redFlags = [flag('foot-locking')];
    for (const drill of eachOf(bundledReference.data.drills)) {
      const blocked = rules(drill.id, { redFlags }).includes('blocked-region');
      expect(blocked, drill.id).toBe(touchedRegions(drill).has('ankle-foot'));
    }
  });

  it('of level E and U that block all give one row with region "all" and plain words', () => {
    const urgent = openBlocks(bundledReference, athleteWith({ redFlags: [flag('gen-clot-leg')] }), TODAY);
    expect(urgent).toEqual([
      {
        region: 'all',
        redFlag: 'gen-clot-leg',
        level: 'U',
        action: 'Stop all exercise. Get medical help (doctor or emergency department) today.',
      },
    ]);
    expect(emergencyOpen(urgent)).toBe(false);
    const own = (id: string) => bundledReference.redFlags.get(id)?.action;
    expect(
      openBlocks(bundledReference, athleteWith({ redFlags: [flag('gen-cauda')] }), TODAY)[0]?.action,
    ).toBe(own('gen-cauda'));
    const local = bundledReference.data.redFlags.find((f) => f.level === 'U' && f.blocks === 'regions');
    const [row] = openBlocks(bundledReference, athleteWith({ redFlags: [flag(local?.id ?? '')] }), TODAY);
    expect(row?.action).toBe(own(local?.id ?? ''));
    const emergency = openBlocks(bundledReference, athleteWith({ redFlags: [flag('gen-cauda')] }), TODAY);
    expect(emergencyOpen(emergency)).toBe(true);
  });

  it('that ask for a region block it; without one they block everything', () => {
    const blocks = (over: Partial<Flag>) =>
      openBlocks(bundledReference, athleteWith({ redFlags: [flag('gen-fracture', over)] }), TODAY).map(
        (b) => b.region,
      );
    expect(blocks({ region: 'elbow' })).toEqual(['elbow']);
    expect(blocks({})).toEqual(['all']);
  });

  it('are lifted by a clearance from its date on, and by nothing else', () => {
    const clearance = { by: 'Dr V. Ness', date: '2027-02-15', scope: 'running' };
    const athlete = athleteWith({ redFlags: [flag('foot-locking', { clearance })] });
    expect(openBlocks(bundledReference, athlete, '2027-02-14')).toHaveLength(1);
    expect(openBlocks(bundledReference, athlete, '2027-02-15')).toEqual([]);
  });

  it('are asked by region and age: general ones first', () => {
    const ids = (birthDate: string) =>
      gateTopics(bundledReference, ['ankle-foot'], birthDate, TODAY).flatMap((t) =>
        t.signs.map(({ sign }) => sign.id),
      );
    const adult = ids('1990-01-01');
    expect(adult).toContain('foot-locking');
    expect(adult).not.toContain('knee-giving');
    expect(adult).not.toContain('youth-heel');
    expect(ids('2016-01-01')).toContain('youth-heel');
    const firstRegional = adult.findIndex((id) => bundledReference.redFlags.get(id)?.scope !== 'general');
    expect(
      adult.slice(firstRegional).every((id) => bundledReference.redFlags.get(id)?.scope === 'ankle-foot'),
    ).toBe(true);
  });
});

describe('after an operation', () => {
  const operated = { region: 'knee' as const, side: 'right' as const, date: '2026-09-01', operated: true };

  it('a protocol leads for twelve months, for that region and side', () => {
    const gates = protocolGates(bundledReference, athleteWith({ injuries: [operated] }), TODAY);
    expect(gates).toMatchObject([{ region: 'knee', side: 'right' }]);
    expect(testAllowed(gates, { id: 'knee-flexion-range', region: 'knee' }, 'right')).toBe(false);
    expect(testAllowed(gates, { id: 'knee-flexion-range', region: 'knee' }, 'left')).toBe(true);
    expect(protocolGates(bundledReference, athleteWith({ injuries: [operated] }), '2027-09-02')).toEqual([]);
  });

  it('an unticked one-sided drill keeps the other side; a two-sided one is lost', () => {
    expect(judge('seated-heel-slide', { injuries: [operated] }).sides).toEqual({ left: true, right: false });
    expect(rules('wall-sit', { injuries: [operated] })).toContain('protocol');
  });

  it('ticked drills are open, and nothing follows from time or symptoms', () => {
    const protocols = [
      {
        region: 'knee' as const,
        side: 'right' as const,
        by: 'Dr V. Ness',
        date: '2026-09-02',
        drills: ['wall-sit'],
        tests: [],
      },
    ];
    expect(rules('wall-sit', { injuries: [operated], protocols })).toEqual([]);
    expect(rules('box-squat', { injuries: [operated], protocols })).toContain('protocol');
  });

  it('leads for twelve months to the day, and from the day of the operation on', () => {
    const gates = (date: string) =>
      protocolGates(
        bundledReference,
        athleteWith({ injuries: [{ region: 'knee', side: 'left', date, operated: true }] }),
        TODAY,
      ).length;
    expect([gates('2026-03-01'), gates('2026-02-28')]).toEqual([1, 0]);
    expect([gates(TODAY), gates('2027-03-02')]).toEqual([1, 0]);
  });

  it('ticks only what was ticked for that region and that side', () => {
    const injuries = [{ region: 'knee' as const, side: 'left' as const, date: '2026-12-01', operated: true }];
    const ticked = (region: 'knee' | 'hip-groin', side: 'left' | 'right') =>
      rules('wall-sit', {
        injuries,
        protocols: [{ region, side, by: 'Dr V. Ness', date: '2026-12-02', drills: ['wall-sit'], tests: [] }],
      }).includes('protocol');
    expect([ticked('knee', 'left'), ticked('knee', 'right'), ticked('hip-groin', 'left')]).toEqual([
      false,
      true,
      true,
    ]);
  });

  it('names the region that a drill is closed for', () => {
    const both = (['left', 'right'] as const).map((side) => ({
      region: 'knee' as const,
      side,
      date: '2026-12-01',
      operated: true,
    }));
    const [closed] = judge('wall-sit', { injuries: both }).forbidden;
    expect(closed).toEqual({ rule: 'protocol', about: drillOf('wall-sit').regions.primary[0] });
  });

  it('a positive protocol question without a region closes every region', () => {
    const gates = protocolGates(
      bundledReference,
      athleteWith({ redFlags: [flag('surgery-protocol')] }),
      TODAY,
    );
    expect(gates.map((g) => g.region)).toContain('shoulder');
    expect(gates.length).toBe(9);
  });
});

describe('a routine that is to be issued', () => {
  it('names each item and rule that forbids it', () => {
    const athlete = athleteWith({
      precautions: [precaution('acute-ankle-sprain')],
      injuries: [{ region: 'knee', side: 'right', date: '2026-12-01', operated: true }],
    });
    const items = [
      { drill: 'knee-to-wall-rock', side: 'left' as const },
      { drill: 'seated-heel-slide', side: 'left' as const },
      { drill: 'seated-heel-slide', side: 'both' as const },
      { drill: 'moon-walk', side: 'both' as const },
    ];
    expect(
      routineSafetyFaults(bundledReference, items, athlete, TODAY).map((f) => [f.index, f.rule, f.about]),
    ).toEqual([
      [0, 'precaution-exclude', 'acute-ankle-sprain'],
      // Standing, the operated leg carries as well.
      [0, 'protocol', 'ankle-foot'],
      [2, 'protocol', 'right'],
      [3, 'unknown-drill', 'moon-walk'],
    ]);
    const left = {
      ...athlete,
      injuries: athlete.injuries.map((injury) => ({ ...injury, side: 'left' as const })),
    };
    const [fault] = routineSafetyFaults(bundledReference, items.slice(2, 3), left, TODAY);
    expect(fault).toMatchObject({ rule: 'protocol', about: 'left' });
  });

  it('leaves out for the young what is not meant for them', () => {
    const adultOnly = bundledReference.data.drills.filter((d) => !d.youthOk);
    expect(adultOnly.length).toBeGreaterThan(0);
    for (const drill of eachOf(adultOnly)) {
      expect(rules(drill.id, { birthDate: '2012-01-01' }), drill.id).toContain('youth');
      expect(rules(drill.id, { birthDate: '2000-01-01' }), drill.id).not.toContain('youth');
      expect(rules(drill.id, { birthDate: '2011-03-01' }), drill.id).not.toContain('youth'); // sixteen today
      expect(rules(drill.id, { birthDate: '2011-03-02' }), drill.id).toContain('youth');
    }
  });
});

describe('what a clearance leaves closed', () => {
  const kept = (scope: string) =>
    activePrecautions(
      athleteWith({
        precautions: [
          precaution('post-surgical-clearance-needed', {
            region: 'knee',
            side: 'left',
            clearance: { by: 'Dr Halden', date: '2027-02-01', scope },
          }),
        ],
      }),
      TODAY,
    )
      .filter(({ id }) => id !== 'post-surgical-clearance-needed')
      .map(({ id, region }) => [id, region]);
  it.each([
    ['straight running and strength; no cutting', ['no-pivoting']],
    ['strength; no running or jumping, no kneeling', ['no-impact', 'no-kneeling-pressure']],
    ['everything below the shoulder, nothing overhead yet', ['no-overhead']],
    ['not overhead, not hanging', ['no-overhead', 'no-hanging']],
    ['running, jumping and cutting', []],
  ])('“%s” keeps %j', (scope, ids) => {
    expect(kept(scope)).toEqual(ids.map((id) => [id, 'knee']));
  });
});
