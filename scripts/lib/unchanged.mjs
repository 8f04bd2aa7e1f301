import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { homedir } from 'node:os';
import { join } from 'node:path';
import { root } from './paths.mjs';
import { run } from './run.mjs';

/** Kept outside the tree, so that a fresh clone on the same machine profits too. */
const FOLDER = join(process.env.XDG_CACHE_HOME ?? join(homedir(), '.cache'), 'yonder-ridge');
const MOST = 20_000;

/** The project's own files, those not added yet included, without what was deleted. */
function ownFiles() {
  const { stdout } = run('git', ['ls-files', '--cached', '--others', '--exclude-standard'], { cwd: root });
  return stdout.split('\n').filter((file) => file && existsSync(join(root, file)));
}

/**
 * The files of `pattern` that a check which looks at each file by itself has not passed yet: known by path, content and
 * everything of `settings` (configuration and tool). `passed` notes that all of them are sound now.
 */
export function filesToCheck(name, pattern, settings) {
  const of = (...parts) => parts.reduce((hash, part) => hash.update(part).update('\0'), createHash('sha256'));
  const setting = of(...settings.map((file) => readFileSync(join(root, file)))).digest('hex');
  const keyOf = (file) => of(setting, file, readFileSync(join(root, file))).digest('base64url');
  const all = ownFiles()
    .filter((file) => pattern.test(file))
    .map((file) => ({ file, key: keyOf(file) }));
  const kept = join(FOLDER, `${name}.json`);
  let known = [];
  try {
    known = JSON.parse(readFileSync(kept, 'utf8'));
  } catch {
    // nothing kept yet, or spoiled: everything is checked
  }
  const sound = new Set(known);
  const passed = () => {
    mkdirSync(FOLDER, { recursive: true });
    const keys = [...new Set([...all.map(({ key }) => key), ...known])].slice(0, MOST);
    writeFileSync(`${kept}.${process.pid}`, JSON.stringify(keys));
    renameSync(`${kept}.${process.pid}`, kept);
  };
  return { files: all.filter(({ key }) => !sound.has(key)).map(({ file }) => file), passed };
}
