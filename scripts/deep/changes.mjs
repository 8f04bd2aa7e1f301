// Seeds single-token changes into rooms of the core that must not be wrong and runs the tests of the room and of its
// neighbours: a change that passes them all is printed, with where it is. It works on a copy; the tree is not touched.
import { spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { createVitest } from 'vitest/node';
import { seededRandom } from '../../core/src/random/index.ts';
import { root } from '../lib/paths.mjs';

/** Rooms whose tests stand beside a room's own, the likeliest to notice first. */
const NEIGHBOURS = {
  safety: ['checks', 'levels', 'assess', 'builder', 'words'],
  progress: ['levels', 'today', 'checks', 'words'],
  session: ['progress', 'routine', 'dose'],
  dose: ['checks', 'progress', 'session'],
  levels: ['progress', 'checks', 'builder'],
  builder: ['checks', 'checkin', 'protocols', 'words'],
  findings: ['assess', 'estimate', 'measure', 'today', 'words'],
};
/** The rooms whose changes must be noticed. */
export const ROOMS = Object.keys(NEIGHBOURS);

const OPERATORS = new Map([
  ['&&', '||'],
  ['||', '&&'],
  ['<', '<='],
  ['<=', '<'],
  ['>', '>='],
  ['>=', '>'],
  ['===', '!=='],
  ['!==', '==='],
  ['+', '-'],
  ['-', '+'],
  ['*', '/'],
  ['/', '*'],
]);
const NAMES = new Map([
  ['some', 'every'],
  ['every', 'some'],
  ['min', 'max'],
  ['max', 'min'],
]);
const WORDS = new Map([
  ['true', 'false'],
  ['false', 'true'],
]);

/** Is this the arm of a comparator (`a < b ? -1 : 1`), where only the sign of a number counts? */
const isArm = (node) =>
  ts.isConditionalExpression(node.parent) ||
  (ts.isPrefixUnaryExpression(node.parent) && ts.isConditionalExpression(node.parent.parent));

/** Every token of a file that could be another one: where it stands and what it would be. */
function tokensOf(file) {
  const text = readFileSync(file, 'utf8');
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const found = [];
  const add = (node, to) =>
    to !== undefined && found.push({ file, from: node.getStart(), end: node.end, to });
  const visit = (node) => {
    if (ts.isTypeNode(node) || ts.isImportDeclaration(node) || ts.isInterfaceDeclaration(node)) return;
    if (ts.isBinaryExpression(node)) add(node.operatorToken, OPERATORS.get(node.operatorToken.getText()));
    if (ts.isPropertyAccessExpression(node)) add(node.name, NAMES.get(node.name.text));
    if (ts.isNumericLiteral(node) && !isArm(node))
      add(node, String(Number(node.text.replaceAll('_', '')) + 1));
    if (node.kind === ts.SyntaxKind.TrueKeyword || node.kind === ts.SyntaxKind.FalseKeyword)
      add(node, WORDS.get(node.getText()));
    if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      found.push({ file, from: node.getStart(), end: node.getStart() + 1, to: '' });
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** A copy of what the core's tests need, in `.tmp`, that may be spoiled. */
function copyOfCore(name) {
  const copy = join(root, '.tmp', name);
  rmSync(copy, { recursive: true, force: true });
  mkdirSync(copy, { recursive: true });
  const whole = { recursive: true, filter: (path) => !path.includes('node_modules') };
  for (const part of ['core', 'package.json', 'tsconfig.base.json', 'vitest.config.ts'])
    cpSync(join(root, part), join(copy, part), whole);
  symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'));
  return copy;
}

/** The test files of a room, then those of its neighbours: each change stops at the first that notices it. */
function testsOf(copy, room) {
  return [room, ...NEIGHBOURS[room]].flatMap((name) => {
    const folder = join(copy, 'core/src', name);
    if (!existsSync(folder)) return [];
    return readdirSync(folder)
      .filter((file) => file.endsWith('.test.ts') && file !== 'assess.test.ts')
      .map((file) => join(folder, file));
  });
}

/** How long the tests of a room and its neighbours may take. */
const LONGEST_MS = 300_000;

/** Keeps the order in which the files are given. */
class AsGiven {
  shard(files) {
    return files;
  }
  sort(files) {
    return files;
  }
}

/**
 * Makes `wanted` changes in a room, drawn from a seed; prints each that no test notices, and the share.
 * Returns how many were made and how many were noticed.
 */
export async function changes(room, seed, wanted) {
  if (!NEIGHBOURS[room]) throw new Error(`no room "${room}": ${ROOMS.join(', ')}`);
  const copy = copyOfCore(`changes-${room}-${seed}`);
  const folder = join(copy, 'core/src', room);
  const tokens = readdirSync(folder)
    .filter((name) => name.endsWith('.ts') && !/\.(test|deep)\.ts$/.test(name))
    .flatMap((name) => tokensOf(join(folder, name)));
  const random = seededRandom(seed);
  const drawn = Array.from({ length: Math.min(wanted, tokens.length) }, () =>
    tokens.splice(Math.floor(random() * tokens.length), 1).flat(),
  ).flat();
  const silent = {
    reporters: [{}],
    silent: true,
    watch: false,
    bail: 1,
    cache: false,
    sequence: { sequencer: AsGiven },
  };
  const vitest = await createVitest('test', { root: copy, project: ['core'], maxWorkers: 1, ...silent });
  const project = vitest.projects[0];
  const specs = testsOf(copy, room).map((file) => project.createSpecification(file));
  const passes = async () => {
    vitest.state.filesMap.clear();
    vitest.state.errorsSet.clear();
    // A change can make a loop endless: the worker is ended then, which is noticing it.
    const end = setTimeout(() => spawnSync('pkill', ['-9', '-P', String(process.pid)]), LONGEST_MS);
    try {
      const { testModules, unhandledErrors } = await vitest.runTestSpecifications(specs, true);
      return unhandledErrors.length === 0 && testModules.every((one) => one.state() === 'passed');
    } catch {
      return false;
    } finally {
      clearTimeout(end);
    }
  };
  process.exitCode = 0;
  if (!(await passes())) throw new Error(`without any change the tests of ${room} do not pass`);
  let caught = 0;
  for (const token of drawn) {
    const text = readFileSync(token.file, 'utf8');
    writeFileSync(token.file, text.slice(0, token.from) + token.to + text.slice(token.end));
    vitest.invalidateFile(token.file);
    const survived = await passes();
    writeFileSync(token.file, text);
    vitest.invalidateFile(token.file);
    if (!survived) caught += 1;
    else {
      const before = text.slice(0, token.from);
      const place = `${token.file.slice(copy.length + 1)}:${before.split('\n').length}`;
      const line = text.split('\n')[before.split('\n').length - 1].trim();
      console.log(
        `passed: ${place} ${text.slice(token.from, token.end)} → ${token.to || 'nothing'}   ${line}`,
      );
    }
  }
  await vitest.close();
  rmSync(copy, { recursive: true, force: true });
  process.exitCode = 0;
  console.log(`${room}, seed ${seed}: ${caught} of ${drawn.length} changes noticed`);
  return { made: drawn.length, caught };
}
