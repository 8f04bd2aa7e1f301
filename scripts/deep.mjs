// What is too long, or too much chance, for `npm test`: other seeds, statistics, searches, seeded changes, trials.
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { root } from './lib/paths.mjs';
import { runVisible } from './lib/run.mjs';
import { checkNode, ensureModules, ensurePackages } from './lib/setup.mjs';

const USAGE = `npm run deep -- PART [options]

  properties [--seed N] [--times T]     every property with another seed (default: drawn, printed) and T times the cases (5)
  statistics                            pictures, rehearsals and house rules, as tables
  readiness [--form F]                  what actions and joints ask for, answered, in every form a preparation is asked for
  minutes [--seed N] [--cases M]        does more time ever serve fewer findings? (5,000 cases)
  changes [--room R] [--seed N] [--changes M]
                                        single-token changes that no test notices; every room and seeds 1 to 3 unless told
  trials                                sudden death, bad input and ways around the rules, against the built product
  all                                   all of these, one after the other`;

const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: Object.fromEntries(
    ['seed', 'times', 'cases', 'form', 'room', 'changes'].map((name) => [name, { type: 'string' }]),
  ),
});

const vitest = (env, ...args) =>
  runVisible(process.execPath, [join(root, 'node_modules/vitest/vitest.mjs'), 'run', ...args], {
    cwd: root,
    env: { ...process.env, ...env },
  });
const script = (file, ...args) =>
  runVisible(process.execPath, ['--import', 'tsx', join(root, file), ...args], { cwd: root });

const PARTS = {
  properties: () => {
    const seed = values.seed ?? String(1 + Math.floor(Math.random() * 1e9));
    console.log(`seed ${seed}`);
    const projects = ['core', 'web'].flatMap((name) => ['--project', name]);
    return vitest(
      { YONDER_SEED: seed, YONDER_TIMES: values.times ?? '5' },
      ...projects,
      '--testTimeout=600000',
    );
  },
  statistics: async () =>
    Math.max(await vitest({}, '--project', 'deep'), await script('core/bench/houseRules.ts')),
  readiness: () => script('core/bench/readiness.ts', values.form ?? ''),
  minutes: () => script('core/bench/minutes.ts', values.seed ?? '1', values.cases ?? '5000'),
  changes: () =>
    script('scripts/deep/changesOf.mjs', values.changes ?? '20', values.room ?? '', values.seed ?? ''),
  trials: async () => {
    const codes = [];
    for (const [file, ...args] of [
      ['kill', '10'],
      ['malformed', '5000'],
      ['around', '300'],
    ])
      codes.push(await script(`scripts/trials/${file}.mjs`, ...args));
    return Math.max(...codes);
  },
};

const [part] = positionals;
if (part !== 'all' && !Object.hasOwn(PARTS, part ?? '')) {
  console.log(USAGE);
  process.exit(part === undefined ? 0 : 1);
}
checkNode();
await ensurePackages({ browser: true });
await ensureModules();
let failed = 0;
for (const name of part === 'all' ? Object.keys(PARTS) : [part])
  failed += (await PARTS[name]()) === 0 ? 0 : 1;
process.exit(failed === 0 ? 0 : 1);
