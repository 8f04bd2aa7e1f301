// Figures of the code that must stay in bounds: how much of it is tests, how much of it is documented, how long functions are.
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import ts from 'typescript';
import { root } from './lib/paths.mjs';

const FUNCTION_LINES = 120;
const files = execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard'], {
  cwd: root,
  encoding: 'utf8',
})
  .split('\n')
  .filter((file) => /\.(ts|tsx|mjs)$/.test(file) && !file.endsWith('.d.mts'));
const isTest = (file) => /\.(test|deep)\.tsx?$|^e2e\/|\/testing\/|^scripts\/(trials|deep)\//.test(file);
const source = (file) =>
  ts.createSourceFile(file, readFileSync(`${root}/${file}`, 'utf8'), ts.ScriptTarget.Latest, true);
const parsed = new Map(files.map((file) => [file, source(file)]));

const lines = (wanted) =>
  [...parsed]
    .filter(([file]) => wanted(file))
    .reduce((sum, [, { text }]) => sum + text.split('\n').filter((l) => l.trim()).length, 0);
const testShare = (100 * lines(isTest)) / lines(() => true);

const has = (node, kind) => ts.canHaveModifiers(node) && ts.getModifiers(node)?.some((m) => m.kind === kind);
/** The type of a schema is described where the schema is. */
const ofSchema = (node) =>
  ts.isTypeAliasDeclaration(node) &&
  /^z\.(output|input|infer)<typeof (schema\.)?\w+>$/.test(node.type.getText());
const documented = (node) => ofSchema(node) || ts.getJSDocCommentsAndTags(node).length > 0;

/** Exported declarations of a file that can carry a description of their own. */
function exportsOf(file) {
  return parsed
    .get(file)
    .statements.filter(
      (node) =>
        has(node, ts.SyntaxKind.ExportKeyword) &&
        (ts.isFunctionDeclaration(node) ||
          ts.isClassDeclaration(node) ||
          ts.isInterfaceDeclaration(node) ||
          ts.isTypeAliasDeclaration(node) ||
          ts.isVariableStatement(node)),
    );
}

/** Members of what components take: interfaces called Props or …Props. */
function propsOf(file) {
  return parsed
    .get(file)
    .statements.filter((node) => ts.isInterfaceDeclaration(node) && /Props$/.test(node.name.text))
    .flatMap((node) => [...node.members]);
}

const shareOf = (nodes) =>
  nodes.length === 0 ? 100 : (100 * nodes.filter(documented).length) / nodes.length;
const inRoom = (room) => files.filter((file) => file.startsWith(`${room}/src/`) && !isTest(file));

const tooLong = [];
for (const [file, root_] of parsed) {
  const visit = (node) => {
    if (ts.isFunctionLike(node) && !isTest(file)) {
      const from = root_.getLineAndCharacterOfPosition(node.getStart()).line;
      const to = root_.getLineAndCharacterOfPosition(node.end).line;
      if (to - from + 1 > FUNCTION_LINES) tooLong.push(`${file}:${from + 1} (${to - from + 1} lines)`);
    }
    ts.forEachChild(node, visit);
  };
  visit(root_);
}

const undocumented = ['core', 'server'].flatMap(inRoom).flatMap((file) =>
  exportsOf(file)
    .filter((node) => !documented(node))
    .map((node) => `${file}: ${(node.name ?? node.declarationList.declarations[0].name).text}`),
);
if (process.argv.includes('--list')) console.log(undocumented.join('\n'));

const figures = [
  ['tests, share of the code', testShare, 27, 33],
  ['exports documented, core', shareOf(inRoom('core').flatMap(exportsOf)), 90, 100],
  ['exports documented, server', shareOf(inRoom('server').flatMap(exportsOf)), 90, 100],
  ['props documented, web', shareOf(inRoom('web').flatMap(propsOf)), 80, 100],
];
let failed = tooLong.length > 0;
for (const [name, value, least, most] of figures) {
  const sound = value >= least && value <= most;
  failed ||= !sound;
  console.log(`${sound ? 'ok  ' : 'FAIL'} ${name}: ${value.toFixed(1)} % (${least} to ${most})`);
}
console.log(
  `${tooLong.length === 0 ? 'ok  ' : 'FAIL'} functions over ${FUNCTION_LINES} lines: ${tooLong.join(', ') || 'none'}`,
);
process.exit(failed ? 1 : 0);
