import { describe, expect, it } from 'vitest';
import { seededRandom } from './index.ts';
import { eachOf } from '../testing/eachOf.ts';

describe('numbers from a seed', () => {
  const draw = (seed: number, n: number) => {
    const random = seededRandom(seed);
    return Array.from({ length: n }, random);
  };

  it('are the same for the same seed and others for another', () => {
    expect(draw(7, 50)).toEqual(draw(7, 50));
    expect(draw(7, 50)).not.toEqual(draw(8, 50));
  });

  it('lie evenly between 0 and 1', () => {
    const numbers = draw(20_270_301, 20_000);
    expect(Math.min(...numbers)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...numbers)).toBeLessThan(1);
    const tenths = Array.from(
      { length: 10 },
      (_, i) => numbers.filter((v) => Math.floor(v * 10) === i).length,
    );
    for (const count of eachOf(tenths)) expect(Math.abs(count - 2000)).toBeLessThan(200);
  });
});
