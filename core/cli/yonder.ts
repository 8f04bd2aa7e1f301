import { readFile } from 'node:fs/promises';
import { resolve } from 'node:path';
import loadHighs from 'highs';
import { buildRoutine, createHighsSolver } from '../src/builder/index.ts';
import type { Case } from '../src/domain/index.ts';
import { caseFaults, caseWarnings, schemaFaults } from '../src/formats/index.ts';
import type { CaseFault } from '../src/formats/index.ts';
import { judgeFindings } from '../src/findings/index.ts';
import { decideProgress } from '../src/progress/index.ts';
import { bundledReference } from '../src/reference/bundled.ts';
import { caseSchema } from '../src/schemas/index.ts';
import { buildOutput, findingsOutput, progressOutput } from './output.ts';

const USAGE = 'usage: npm run --silent yonder -- findings|build|progress FILE';

class FaultyCase extends Error {
  readonly faults: readonly CaseFault[];
  constructor(faults: readonly CaseFault[]) {
    super('the case is faulty');
    this.faults = faults;
  }
}

async function readCase(file: string): Promise<Case> {
  const path = resolve(process.env.INIT_CWD ?? process.cwd(), file);
  let raw: unknown;
  try {
    raw = JSON.parse(await readFile(path, 'utf8'));
  } catch (error) {
    const what = error instanceof SyntaxError ? `not JSON (${error.message})` : `cannot be read (${path})`;
    throw new FaultyCase([{ path: '$', message: `${what}; give one JSON case file` }]);
  }
  const parsed = caseSchema.safeParse(raw);
  if (!parsed.success) throw new FaultyCase(schemaFaults(parsed.error.issues));
  const faults = caseFaults(bundledReference, parsed.data);
  if (faults.length > 0) throw new FaultyCase(faults);
  return parsed.data;
}

async function run(verb: string, input: Case): Promise<unknown> {
  switch (verb) {
    case 'findings':
      return findingsOutput(judgeFindings(bundledReference, input), caseWarnings(bundledReference, input));
    case 'build':
      return buildOutput(buildRoutine(bundledReference, input, createHighsSolver(await loadHighs())));
    case 'progress':
      return progressOutput(decideProgress(bundledReference, input));
    default:
      throw new FaultyCase([{ path: '$', message: `unknown verb "${verb}"; ${USAGE}` }]);
  }
}

async function main(): Promise<number> {
  const [verb, file] = process.argv.slice(2);
  if (!verb || !file) {
    process.stderr.write(`${USAGE}\n`);
    return 2;
  }
  try {
    const output = await run(verb, await readCase(file));
    process.stdout.write(`${JSON.stringify(output, null, 2)}\n`);
    return 0;
  } catch (error) {
    if (!(error instanceof FaultyCase)) throw error;
    process.stderr.write(error.faults.map((fault) => `${fault.path}: ${fault.message}\n`).join(''));
    return 2;
  }
}

process.exitCode = await main();
