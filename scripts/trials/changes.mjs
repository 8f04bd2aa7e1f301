// Seeds single-token changes into the core's rooms that must not be wrong and runs the tests of the room and of its
// neighbours: a change that passes them all is printed, with where it is. It works on a copy; the tree is not touched.
// Usage: node --import tsx scripts/trials/changes.mjs [changes] [seed] [room …]
import { spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { root } from '../lib/paths.mjs';
import { seededRandom } from '../../core/src/random/index.ts';

/** Whose tests stand beside a room's own. */
const NEIGHBOURS = {
  safety: ['checks', 'levels', 'assess'],
  progress: ['levels', 'today', 'checks'],
  session: ['progress', 'routine'],
  dose: ['checks', 'progress', 'session'],
  findings: ['assess', 'estimate', 'measure', 'today'],
};

const wanted = Number(process.argv[2] ?? 30);
const random = seededRandom(Number(process.argv[3] ?? 1));
const rooms = process.argv.length > 4 ? process.argv.slice(4) : Object.keys(NEIGHBOURS);

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
    // As an arm of a comparator only the sign of a number counts.
    if (ts.isNumericLiteral(node) && !ts.isConditionalExpression(node.parent))
      add(node, String(Number(node.text) + 1));
    if (node.kind === ts.SyntaxKind.TrueKeyword || node.kind === ts.SyntaxKind.FalseKeyword)
      add(node, WORDS.get(node.getText()));
    if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      found.push({ file, from: node.getStart(), end: node.getStart() + 1, to: '' });
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

const copy = join(root, '.tmp', 'changes');
rmSync(copy, { recursive: true, force: true });
mkdirSync(copy, { recursive: true });
const whole = { recursive: true, filter: (path) => !path.includes('node_modules') };
for (const part of ['core', 'package.json', 'tsconfig.base.json', 'vitest.config.ts'])
  cpSync(join(root, part), join(copy, part), whole);
symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'));

const tokens = rooms.map((room) => {
  const folder = join(copy, 'core/src', room);
  const files = readdirSync(folder).filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'));
  return { room, tokens: files.flatMap((name) => tokensOf(join(folder, name))) };
});

/** Do the tests of a room and its neighbours pass in the copy? */
function passes(room) {
  const folders = [room, ...(NEIGHBOURS[room] ?? [])].map((name) => `core/src/${name}/`);
  const vitest = join(root, 'node_modules/vitest/vitest.mjs');
  const args = [vitest, 'run', '--project', 'core', '--bail', '1', ...folders];
  return spawnSync(process.execPath, args, { cwd: copy, stdio: 'ignore', timeout: 120_000 }).status === 0;
}
const broken = rooms.filter((room) => !passes(room));
if (broken.length > 0) throw new Error(`without any change the tests of ${broken.join(', ')} do not pass`);

let caught = 0;
for (let i = 0; i < wanted; i += 1) {
  const { room, tokens: own } = tokens[i % tokens.length];
  const [token] = own.splice(Math.floor(random() * own.length), 1);
  if (!token) continue;
  const text = readFileSync(token.file, 'utf8');
  writeFileSync(token.file, text.slice(0, token.from) + token.to + text.slice(token.end));
  const survived = passes(room);
  writeFileSync(token.file, text);
  if (!survived) caught += 1;
  else {
    const line = text.slice(0, token.from).split('\n').length;
    const now = text.slice(token.from, token.end);
    console.log(
      `passed: ${token.file.slice(copy.length + 1)}:${line} ${now} → ${token.to || 'nothing'}   ${text.split('\n')[line - 1].trim()}`,
    );
  }
}
rmSync(copy, { recursive: true, force: true });
console.log(`${caught} of ${wanted} changes caught`);
