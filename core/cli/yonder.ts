import { readFile } from 'node:fs/promises';
import { resolve } from 'node:path';
import loadHighs from 'highs';
import { assessCase } from '../src/assess/index.ts';
import { buildRoutine, createHighsSolver } from '../src/builder/index.ts';
import type { Case } from '../src/domain/index.ts';
import { caseFaults, caseWarnings, renewedCase, schemaFaults } from '../src/formats/index.ts';
import type { CaseFault } from '../src/formats/index.ts';
import { decideProgress } from '../src/progress/index.ts';
import { bundledReference } from '../src/reference/bundled.ts';
import { caseSchema } from '../src/schemas/index.ts';
import { takeoverRows } from './takeover.ts';
import { buildOutput, findingsOutput, progressOutput, referenceOutput } from './output.ts';

const USAGE =
  'usage: npm run --silent yonder -- findings|build|progress FILE, takeover LIST [--case FILE], or reference';

class FaultyCase extends Error {
  readonly faults: readonly CaseFault[];
  constructor(faults: readonly CaseFault[]) {
    super('the case is faulty');
    this.faults = faults;
  }
}

/** The case of a file, and what of it was written in ids that have changed since. */
async function readCase(file: string): Promise<{ input: Case; mapped: CaseFault[] }> {
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
  const renewed = renewedCase(bundledReference, parsed.data);
  const faults = caseFaults(bundledReference, renewed.input);
  if (faults.length > 0) throw new FaultyCase(faults);
  return renewed;
}

/** Longest list that is read, in characters. */
const MOST_TEXT = 200_000;

async function readList(file: string): Promise<string> {
  const path = resolve(process.env.INIT_CWD ?? process.cwd(), file);
  try {
    const text = await readFile(path, 'utf8');
    if (text.length <= MOST_TEXT) return text;
  } catch {
    throw new FaultyCase([{ path: '$', message: `cannot be read (${path}); give one text file` }]);
  }
  throw new FaultyCase([{ path: '$', message: `longer than ${MOST_TEXT} characters; cut it in two` }]);
}

/** A list taken over, one JSON row a line, or a part of one. */
async function listTakenOver(file: string, more: readonly string[]): Promise<string> {
  const [flag, caseFile] = more;
  if (more.length > 0 && (flag !== '--case' || caseFile === undefined))
    throw new FaultyCase([{ path: '$', message: `"${more.join(' ')}" is not understood; ${USAGE}` }]);
  const list = await readList(file);
  const input = caseFile === undefined ? null : (await readCase(caseFile)).input;
  return takeoverRows(bundledReference, list, input)
    .map((row) => `${JSON.stringify(row)}\n`)
    .join('');
}

async function run(verb: string, input: Case): Promise<object> {
  const assessment = assessCase(bundledReference, input);
  switch (verb) {
    case 'findings':
      return findingsOutput(assessment.report, caseWarnings(bundledReference, input));
    case 'build':
      return buildOutput(buildRoutine(assessment, input.request, createHighsSolver(await loadHighs())));
    case 'progress':
      return progressOutput(decideProgress(assessment));
    default:
      throw new FaultyCase([{ path: '$', message: `unknown verb "${verb}"; ${USAGE}` }]);
  }
}

/** What the command line prints and how it ends. */
export interface Outcome {
  readonly code: 0 | 2;
  readonly stdout: string;
  readonly stderr: string;
}

/** Prints the reference, or runs one verb on a case file; faults go to stderr, one a line with their path, and end with code 2. */
export async function yonder(args: readonly string[]): Promise<Outcome> {
  const [verb, file, ...more] = args;
  if (verb === 'reference')
    return { code: 0, stdout: `${JSON.stringify(referenceOutput(bundledReference))}\n`, stderr: '' };
  if (!verb || !file) return { code: 2, stdout: '', stderr: `${USAGE}\n` };
  try {
    if (verb === 'takeover') return { code: 0, stdout: await listTakenOver(file, more), stderr: '' };
    const { input, mapped } = await readCase(file);
    const output = { ...(await run(verb, input)), mapped };
    return { code: 0, stdout: `${JSON.stringify(output, null, 2)}\n`, stderr: '' };
  } catch (error) {
    if (!(error instanceof FaultyCase)) throw error;
    return { code: 2, stdout: '', stderr: error.faults.map((f) => `${f.path}: ${f.message}\n`).join('') };
  }
}
