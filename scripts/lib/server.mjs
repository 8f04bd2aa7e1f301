import { fork } from 'node:child_process';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { buildServer } from './build.mjs';
import { root } from './paths.mjs';

/** A clean environment: only what the server is told, and what Node itself needs. */
function environmentOf(own) {
  const keep = ['PATH', 'HOME', 'LANG', 'TZ', 'TMPDIR'];
  return {
    ...Object.fromEntries(keep.flatMap((key) => (process.env[key] ? [[key, process.env[key]]] : []))),
    ...own,
  };
}

async function forkBuilt(entry, environment, onLine) {
  const child = fork(join(await buildServer(), `${entry}.js`), [], {
    cwd: root,
    execArgv: ['--enable-source-maps'],
    env: environmentOf(environment),
    stdio: ['ignore', onLine ? 'pipe' : 'inherit', 'inherit', 'ipc'],
  });
  if (onLine) createInterface({ input: child.stdout }).on('line', onLine);
  return child;
}

/** Runs a command of the built server (`migrate`, `demo`) to its end; throws when it fails. */
export async function runOnce(entry, environment) {
  const child = await forkBuilt(entry, environment);
  const code = await new Promise((resolve, reject) => {
    child.on('error', reject);
    child.on('exit', resolve);
  });
  if (code !== 0) throw new Error(`${entry} failed (${code})`);
}

/** Starts the built server and waits until it listens. `stop` ends it gracefully; `onLine` gets its log instead of the terminal. */
export async function startServer(environment, onLine) {
  const child = await forkBuilt('main', environment, onLine);
  return new Promise((resolve, reject) => {
    const exited = new Promise((done) => child.on('exit', done));
    exited.then((code) => reject(new Error(`the server ended before it listened (${code})`)));
    child.on('error', reject);
    child.on('message', (message) => {
      if (typeof message !== 'object' || message === null || !('listening' in message)) return;
      const stop = async () => {
        child.kill('SIGTERM');
        await exited;
      };
      resolve({ port: message.listening, pid: child.pid, exited, stop, kill: () => child.kill('SIGKILL') });
    });
  });
}
