import { describe, expect, it } from 'vitest';
import { bundledData, bundledReference } from './bundled.ts';
import { practiceReference } from './createReference.ts';
import { MDC95_PER_SEM } from './figures.ts';
import type { PracticeFigures } from './createReference.ts';
import { kitWordsOf } from './kit.ts';
import { referenceDataSchema } from './schema.ts';
import { eachOf } from '../testing/eachOf.ts';

describe('the reference data', () => {
  it('has the shape every reader relies on', () => {
    const parsed = referenceDataSchema.safeParse(bundledData);
    expect(parsed.error?.issues.slice(0, 5) ?? []).toEqual([]);
    expect(bundledData.tests.length).toBe(101);
    expect(bundledData.drills.length).toBe(520);
  });

  it('names only things that exist', () => {
    const { restrictions, tests, drills, ladders, precautions } = bundledReference;
    const missing: string[] = [];
    const check = (list: ReadonlyMap<string, unknown>, id: string | null | undefined, where: string) => {
      if (id && !list.has(id)) missing.push(`${where}: ${id}`);
    };
    for (const test of bundledData.tests) test.informs.forEach((id) => check(restrictions, id, test.id));
    for (const drill of bundledData.drills) {
      drill.serves.forEach((s) => check(restrictions, s.restriction, drill.id));
      drill.contraindications.forEach((id) => check(precautions, id, drill.id));
      [...drill.equivalents, drill.easeTo, drill.progressTo].forEach((id) => check(drills, id, drill.id));
      drill.entryCriteria.forEach((c) => {
        check(tests, c.test, drill.id);
        check(drills, c.drill, drill.id);
      });
      check(ladders, drill.ladder, drill.id);
    }
    for (const demand of bundledData.demands) demand.demands.forEach((d) => check(tests, d.test, demand.id));
    expect(missing).toEqual([]);
  });

  it('puts every drill into exactly one ladder, demand never falling along it', () => {
    const seen = bundledData.ladders.flatMap((ladder) => ladder.drills);
    expect(new Set(seen).size).toBe(seen.length);
    expect(seen.length).toBe(bundledData.drills.length);
    for (const ladder of eachOf(bundledData.ladders)) {
      const demand = ladder.drills.map((id) => bundledReference.drills.get(id)?.demandIndex ?? 0);
      expect(demand, ladder.id).toEqual([...demand].sort((a, b) => a - b));
    }
  });

  it('leaves a drill without kit, and one that stands, for every restriction', () => {
    for (const restriction of eachOf(bundledData.restrictions)) {
      const serving = bundledData.drills.filter((drill) =>
        drill.serves.some((s) => s.restriction === restriction.id && s.match >= 0.4),
      );
      expect(
        serving.some((drill) => kitWordsOf(drill).length === 0),
        restriction.id,
      ).toBe(true);
    }
  });
});

describe('edited figures', () => {
  it('recompute MDC95 from an edited SEM and leave the shipped figures alone', () => {
    const edited = practiceReference(bundledReference, {
      reference: [{ test: 'wblt-distance', path: 'sem', value: 1 }],
      tasks: [],
    });
    expect(edited.tests.get('wblt-distance')?.mdc95.value).toBeCloseTo(MDC95_PER_SEM, 10);
    expect(bundledReference.tests.get('wblt-distance')?.mdc95.value).toBe(1.66);
  });

  it('replace floors, limits and demands, and applying them twice changes nothing more', () => {
    const figures: PracticeFigures = {
      reference: [
        { test: 'wblt-distance', path: 'deficitBelow', value: 10 },
        { test: 'wblt-distance', path: 'asymmetry', value: 2 },
        { test: 'wblt-distance', path: 'spreadLimit', value: 0.5 },
        { test: 'heel-raise-reps', path: 'cvLimitPercent', value: 7 },
        { test: 'wblt-distance', path: 'demand', task: 'fell-running-descent', value: 11.5 },
      ],
      tasks: [],
    };
    const once = practiceReference(bundledReference, figures);
    const wblt = once.tests.get('wblt-distance');
    expect(wblt?.flag.deficit?.below).toBe(10);
    expect(wblt?.flag.asymmetry?.threshold).toBe(2);
    expect(wblt?.spreadLimit?.value).toBe(0.5);
    expect(once.tests.get('heel-raise-reps')?.cvLimitPercent).toBe(7);
    const demands = once.demands.get('fell-running-descent')?.demands ?? [];
    expect(demands.find((d) => d.test === 'wblt-distance')?.value).toBe(11.5);
    expect(practiceReference(once, figures).data).toEqual(once.data);
  });

  it('add tasks of the practice’s own, in the unit of their tests', () => {
    const task = {
      id: 'own-gully-jumps',
      name: 'Gully jumps',
      sport: 'fell running',
      demands: [{ test: 'heel-raise-reps', value: 35, side: 'both' as const }],
    };
    const own = practiceReference(bundledReference, { reference: [], tasks: [task] });
    const [row] = own.demands.get('own-gully-jumps')?.demands ?? [];
    expect(row).toMatchObject({ unit: 'reps', value: 35, basis: 'set by the practice', confidence: 'low' });
    expect(row?.informs).toContain('calf-endurance-deficit');
    expect(practiceReference(own, { reference: [], tasks: [task] }).data.demands).toHaveLength(
      bundledReference.data.demands.length + 1,
    );
  });
});
