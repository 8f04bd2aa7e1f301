import { assessCase } from '@yonder/core/assess';
import { bundledReference } from '@yonder/core/reference/bundled';
import { caseSchema } from '@yonder/core/schemas';
import { describe, expect, it } from 'vitest';
import { layoutRidge, MIST, ridgePath, unbroken } from './layout.ts';

const result = (test: string, side: string, value: number) => ({ test, side, trials: [value] });
const report = assessCase(
  bundledReference,
  caseSchema.parse({
    format: 'yonder-ridge-case/1',
    today: '2027-03-01',
    athlete: { birthDate: '2000-01-01', bodyMassKg: 70 },
    screenings: [
      {
        date: '2027-01-10',
        results: [result('wblt-distance', 'left', 5), result('wblt-distance', 'right', 11)],
      },
      {
        date: '2027-02-27',
        results: [
          result('wblt-distance', 'left', 7),
          result('wblt-distance', 'right', 11),
          result('heel-raise-reps', 'left', 14),
          result('heel-raise-reps', 'right', 24),
          result('wrist-extension-range', 'left', 90),
          result('wrist-extension-range', 'right', 90),
          { test: 'step-down-quality', side: 'left', grade: 1 },
        ],
      },
    ],
  }),
).report;
const layout = layoutRidge(bundledReference, report, 720, 280);
const point = (test: string, side: 'left' | 'right') => {
  const found = layout.lines[side].find((p) => p.capacity.test === test);
  if (!found) throw new Error(`no ${test} ${side}`);
  return found;
};

describe('where the ridge puts things', () => {
  it('runs from toes to fingertips without overlap, inside the plot', () => {
    const edges = layout.groups.map((g) => [g.x, g.x + g.width] as const);
    edges.slice(1).forEach(([from], i) => expect(from).toBeGreaterThan(edges[i]?.[1] ?? 0));
    expect(edges.at(-1)?.[1]).toBeLessThanOrEqual(layout.plot.right + 0.5);
    expect(layout.groups[0]?.region).toBe('ankle-foot');
    expect(layout.groups.at(-1)?.region).toBe('wrist-hand');
  });
  it.each([200, 340, 720, 1400])('fits a width of %i px with nothing narrower than nothing', (width) => {
    const { groups } = layoutRidge(bundledReference, report, width, 280);
    expect(Math.min(...groups.map((g) => g.width))).toBeGreaterThan(0);
    const last = groups.at(-1);
    expect((last?.x ?? 0) + (last?.width ?? 0)).toBeLessThanOrEqual(width);
  });
  it('shows unscreened regions as fog, never as zero', () => {
    expect(layout.groups.filter((g) => g.screened).map((g) => g.region)).toEqual([
      'ankle-foot',
      'knee',
      'wrist-hand',
    ]);
    const foggy = layout.groups.find((g) => g.region === 'shoulder');
    const inside = [...layout.lines.left, ...layout.lines.right].filter(
      (p) => foggy && p.x > foggy.x && p.x < foggy.x + foggy.width,
    );
    expect(inside).toEqual([]);
  });
  it('puts better higher, and the need line between short and enough', () => {
    expect(point('wblt-distance', 'left').y).toBeGreaterThan(layout.yOf(0));
    expect(point('wblt-distance', 'right').y).toBeLessThan(layout.yOf(0));
    expect(layout.yOf(MIST)).toBeLessThan(layout.yOf(-MIST));
  });
  it('gives every measured point its own bar of 1.645 sd, and grades none', () => {
    const lunge = point('wblt-distance', 'left');
    const capacity = report.capacities.find((c) => c.test === 'wblt-distance' && c.side === 'left');
    const half = (1.645 * (capacity?.sd ?? 0)) / 1.66;
    const margin = capacity?.margin ?? 0;
    expect(lunge.bar).toEqual([layout.yOf(margin - half), layout.yOf(margin + half)]);
    expect(point('step-down-quality', 'left').bar).toBeNull();
  });
  it('draws the screening before against today’s need, lower where it was worse', () => {
    const lunge = point('wblt-distance', 'left');
    expect(lunge.before).toBeGreaterThan(lunge.y);
    expect(point('heel-raise-reps', 'left').before).toBeNull();
  });
  it('both sides of a test share their place along the body', () => {
    expect(point('wblt-distance', 'left').x).toBe(point('wblt-distance', 'right').x);
  });
});

describe('the line', () => {
  it('breaks where there is fog and goes on between neighbours', () => {
    const runs = unbroken(layout.lines.left, layout.groups);
    expect(runs.map((run) => run.map((p) => p.capacity.region))).toEqual([
      ['ankle-foot', 'ankle-foot', 'knee'],
      ['wrist-hand'],
    ]);
  });
  it('passes through its points and never overshoots them', () => {
    const points = [
      { x: 0, y: 10 },
      { x: 10, y: 50 },
      { x: 20, y: 30 },
    ];
    const numbers = (ridgePath(points).match(/-?\d+(\.\d+)?/g) ?? []).map(Number);
    const ys = numbers.filter((_, i) => i % 2 === 1);
    expect(Math.min(...ys)).toBe(10);
    expect(Math.max(...ys)).toBe(50);
    expect(numbers.slice(-2)).toEqual([20, 30]);
    expect(ridgePath([])).toBe('');
  });
});
