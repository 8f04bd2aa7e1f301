import loadHighs from 'highs';
import { createHighsSolver } from '../src/builder/index.ts';
import { bundledReference } from '../src/reference/bundled.ts';
import { caseOf } from '../src/testing/cases.ts';
import { houseFaults, preparationCase, preparations } from '../src/testing/houseRules.ts';
import { buildCase, judgeCase } from '../src/testing/prepared.ts';

// Every preparation for one task of the reference against the house rules: a line for each that breaks one.
const solver = createHighsSolver(await loadHighs());
const all = preparations(bundledReference);
const broken = all.flatMap((one) => {
  const input = caseOf(preparationCase(bundledReference, one));
  const report = buildCase(bundledReference, input, solver);
  const faults = houseFaults(bundledReference, input, report, judgeCase(bundledReference, input).findings);
  return faults.length > 0 ? [{ one, faults, unused: report.unused }] : [];
});
console.log(`${all.length - broken.length} of ${all.length} preparations keep every house rule`);
for (const { one, faults, unused } of broken) {
  const form = `${one.minutes} min, ${one.findings ? 'three findings' : 'unscreened'}, ${one.kit ? 'usual kit' : 'no kit'}`;
  const why = unused?.because.map(({ rule }) => rule).join(', ') ?? '';
  console.log(`| ${one.task} | ${form} | ${faults.join('; ')} | ${why} |`);
}
