import { describe, expect, it } from 'vitest';
import { bundledData } from './bundled.ts';
import { withMirrors } from './mirrors.ts';
import { eachOf } from '../testing/eachOf.ts';

describe('what follows from what a test informs', () => {
  it('stands with every restriction and demand, and with nothing else', () => {
    for (const { id, tests } of eachOf(bundledData.restrictions))
      expect(tests, id).toEqual(
        bundledData.tests.filter((test) => test.informs.includes(id)).map((test) => test.id),
      );
    for (const task of eachOf(bundledData.demands))
      for (const row of eachOf(task.demands))
        expect(row.informs, `${task.id} ${row.test}`).toEqual(
          bundledData.tests.find((test) => test.id === row.test)?.informs,
        );
  });

  it('is worked out anew for a test that informs something else', () => {
    const [first, ...rest] = bundledData.tests;
    const [restriction, other] = bundledData.restrictions;
    if (!first || !restriction || !other) throw new Error('no reference');
    const changed = withMirrors({ ...bundledData, tests: [{ ...first, informs: [other.id] }, ...rest] });
    const testsOf = (id: string) => changed.restrictions.find((one) => one.id === id)?.tests;
    expect(testsOf(restriction.id)).not.toContain(first.id);
    expect(testsOf(other.id)).toContain(first.id);
    const rows = changed.demands.flatMap((task) => task.demands).filter((row) => row.test === first.id);
    expect(rows.length).toBeGreaterThan(0);
    for (const row of eachOf(rows)) expect(row.informs).toEqual([other.id]);
  });
});
