import { share, SOLVED, WRITTEN } from '../src/testing/seededFaults.ts';
import { figureSources } from './figureSources.ts';

// Makes each mistake in every figure, or in every nth, and prints how often the checks notice it.
const every = Number(process.argv[2] ?? 1);
const sources = figureSources();
process.stdout.write('| Mistake | Possible in | Noticed | Share |\n|---|---|---|---|\n');
for (const [name, mistake] of Object.entries({ ...SOLVED, ...WRITTEN })) {
  const { of, caught, missed } = share(mistake, sources, every);
  const percent = Math.round((100 * caught) / Math.max(1, of));
  process.stdout.write(`| ${name} | ${of} | ${caught} | ${percent} % |\n`);
  if (process.argv.includes('--missed')) process.stderr.write(`${name}: ${missed.join(', ')}\n`);
}
