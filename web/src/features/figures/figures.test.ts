import { referenceEditFaults } from '@yonder/core/formats';
import { practiceReference } from '@yonder/core/reference';
import type { Reference, Test } from '@yonder/core/reference';
import { bundledReference } from '@yonder/core/reference/bundled';
import { describe, expect, it } from 'vitest';
import { editableFigures, figureText } from './figures.ts';
import type { EditableFigure } from './figures.ts';
import { eachOf } from '@yonder/core/testing/eachOf';

const measured = bundledReference.data.tests.filter((test) => !test.derivedFrom);
const keyOf = (row: EditableFigure) => `${row.path}/${row.task ?? ''}`;

/** The reference with one figure of a test replaced. */
function withFigure(test: Test, row: EditableFigure, value: number): Reference {
  const edit = { test: test.id, path: row.path, ...(row.task ? { task: row.task } : {}), value };
  return practiceReference(bundledReference, { reference: [edit], tasks: [] });
}

describe('the figures of a test that can be edited', () => {
  it('hold its cut-off, symmetry limit, error and demands', () => {
    const lunge = bundledReference.tests.get('wblt-distance') as Test;
    const rows = editableFigures(bundledReference, lunge);
    expect(rows.map((r) => r.path)).toEqual(
      expect.arrayContaining([
        'deficitBelow',
        'asymmetry',
        'sem',
        'processSdPerWeek',
        'spreadLimit',
        'demand',
      ]),
    );
    expect(rows.find((r) => r.task === 'fell-running-descent')).toMatchObject({ value: 9, unit: 'cm' });
  });

  it('offer no error for grades and pain, which have none', () => {
    for (const test of eachOf(measured.filter((t) => t.gradingRule || t.unit === 'nrs-0-10'))) {
      const paths = editableFigures(bundledReference, test).map((r) => r.path);
      expect([test.id, paths.includes('sem')]).toEqual([test.id, false]);
    }
  });

  it('every one, of every test, is what the page then shows, and nothing else of the test moves', () => {
    let edited = 0;
    for (const test of eachOf(measured)) {
      const before = editableFigures(bundledReference, test);
      expect(new Set(before.map(keyOf)).size).toBe(before.length);
      for (const row of eachOf(before)) {
        const value = Math.min(test.plausible.max, (row.value ?? 1) * 0.9 + 0.07);
        const reference = withFigure(test, row, value);
        const after = editableFigures(reference, reference.tests.get(test.id) as Test);
        const changed = after.filter((r, i) => r.value !== before[i]?.value);
        expect([test.id, keyOf(row), changed.map(keyOf)]).toEqual([test.id, keyOf(row), [keyOf(row)]]);
        expect(changed[0]?.value).toBe(value);
        edited += 1;
      }
    }
    expect(edited).toBeGreaterThan(300);
  });

  it('accept what the reference itself holds', () => {
    const faults = measured.flatMap((test) =>
      editableFigures(bundledReference, test).flatMap((row) =>
        referenceEditFaults(bundledReference, {
          test: test.id,
          path: row.path,
          ...(row.task ? { task: row.task } : {}),
          value: row.value ?? 0,
        }).map((fault) => `${test.id} ${keyOf(row)} ${fault.message}`),
      ),
    );
    expect(faults).toEqual([]);
  });
});

describe('a figure in words', () => {
  it.each([
    [9, 'cm', '9.0 cm'],
    [0.36, 'cm', '0.36 cm'],
    [85, '%', '85 %'],
    [0.75, 'N/kg', '0.75 N/kg'],
    [2.35, 'deg', '2.35 °'],
    [-2, 'cm', '−2.0 cm'],
    [null, 'cm', 'none'],
  ])('%s %s is "%s"', (value, unit, text) => {
    expect(figureText(value, unit)).toBe(text);
  });
});
