import { describe, expect, it } from 'vitest';
import { figureSources } from '../../cli/figureSources.ts';
import { share, SOLVED, WRITTEN } from '../testing/seededFaults.ts';
import type { Mistake } from '../testing/seededFaults.ts';

/** Share of the pictures in which the checks notice a slip, at least (docs/pictures.md). */
const LEAST = {
  floating: 0.95,
  sunk: 0.95,
  'a hip 35° off': 0.8,
  'wrong side marked': 0.9,
  'wrong camera': 0.9,
  'sign of an angle flipped': 0.5,
  'limbs of the other side': 0.5,
};

describe('a picture', () => {
  const sources = figureSources();
  it.each(Object.entries(LEAST))('%s: noticed by the checks when somebody slips', (name, floor) => {
    const solved = SOLVED[name];
    const { of, caught, missed } = share((solved ?? WRITTEN[name]) as Mistake, sources, solved ? 1 : 10);
    process.stdout.write(`| ${name} | ${caught} of ${of} |\n`);
    expect(of).toBeGreaterThan(5);
    expect(caught / of, missed.join(', ')).toBeGreaterThanOrEqual(floor);
  });
});
