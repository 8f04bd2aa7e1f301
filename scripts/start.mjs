// Starts the built server on the database of DATABASE_URL; needs no development package.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { root } from './lib/paths.mjs';

const verb = process.argv[2] === 'migrate' ? 'migrate' : 'main';
const entry = join(root, 'server', 'dist', `${verb}.js`);
if (!existsSync(entry)) {
  console.error('Not built yet: run "npm run build" first (it needs the development packages).');
  process.exit(1);
}
process.env.YONDER_WEB_DIST ??= join(root, 'web', 'dist');
await import(pathToFileURL(entry).href);
