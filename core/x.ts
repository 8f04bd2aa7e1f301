import { readFileSync } from 'node:fs';
import loadHighs from 'highs';
import { assessCase } from './src/assess/index.ts';
import { buildRoutine, createHighsSolver } from './src/builder/index.ts';
import { bundledReference } from './src/reference/bundled.ts';
import { caseSchema } from './src/schemas/index.ts';
const solver = createHighsSolver(await loadHighs());
const cases = JSON.parse(readFileSync('/tmp/g/cases.json', 'utf8'));
for (const [name, c] of Object.entries(cases) as any) {
  const input = caseSchema.parse(c);
  const a = assessCase(bundledReference, input);
  for (const minutes of [input.request.minutes, 20]) {
    const t = performance.now(); let first = 0;
    const r = buildRoutine(a, { ...input.request, minutes }, solver, { onReport: () => { first ||= performance.now() - t; } });
    console.log(name.padEnd(20), minutes, Math.round(first), Math.round(performance.now() - t), r.routine?.gap, r.routine?.items.length, r.dayRules.map(d=>d.band).join());
  }
}
