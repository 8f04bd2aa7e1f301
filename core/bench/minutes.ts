import fc from 'fast-check';
import loadHighs from 'highs';
import { createHighsSolver } from '../src/builder/index.ts';
import { bundledReference } from '../src/reference/bundled.ts';
import { arbitraryCase } from '../src/testing/arbitraries.ts';
import { buildCase, prepareCase } from '../src/testing/prepared.ts';

// Does more time ever serve fewer findings? Usage: tsx core/bench/minutes.ts SEED CASES; a line for each case in which it does.
const [seed = 1, cases = 5000] = process.argv.slice(2).map(Number);
const solver = createHighsSolver(await loadHighs());
const pairs = [
  [6, 12],
  [5, 8],
  [10, 20],
  [8, 15],
] as const;
let found = 0;
fc.sample(arbitraryCase(false), { seed, numRuns: cases }).forEach((input, index) => {
  const [short, long] = pairs[index % 10 < 7 ? 0 : (index % 10) - 6] ?? pairs[0];
  const { structure } = prepareCase(bundledReference, input).chosen;
  const left = (minutes: number) => {
    const request = { ...input.request, structure: structure.id, minutes };
    const { routine, unserved } = buildCase(bundledReference, { ...input, request }, solver);
    // What hurts above the limit is left alone however long the session is.
    const open = unserved.filter(({ because }) => because.rule !== 'sore-above-limit');
    return { gap: routine?.gap, left: routine ? open.map((u) => `${u.restriction}/${u.side}`) : [] };
  };
  const [few, many] = [left(short), left(long)];
  if (few.gap !== undefined && many.gap !== undefined && many.left.length > few.left.length) {
    found += 1;
    console.log(
      `case ${index}, ${structure.id}: ${short} min leave ${few.left.length} (gap ${few.gap}), ${long} min leave ${many.left.length} (gap ${many.gap}): ${many.left.filter((one) => !few.left.includes(one)).join(', ')} instead of ${few.left.filter((one) => !many.left.includes(one)).join(', ') || 'nothing'}`,
    );
  }
});
console.log(`seed ${seed}: more time served fewer findings in ${found} of ${cases} cases`);
