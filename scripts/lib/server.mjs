import { fork } from 'node:child_process';
import { root } from './paths.mjs';

/** A clean environment: only what the server is told, and what Node itself needs. */
function environmentOf(own) {
  const keep = ['PATH', 'HOME', 'LANG', 'TZ', 'TMPDIR'];
  return {
    ...Object.fromEntries(keep.flatMap((key) => (process.env[key] ? [[key, process.env[key]]] : []))),
    ...own,
  };
}

function forkTs(entry, environment) {
  return fork(entry, [], {
    cwd: root,
    execArgv: ['--import', 'tsx'],
    env: environmentOf(environment),
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
}

/** Runs a TypeScript entry to its end; throws when it fails. */
export function runOnce(entry, environment) {
  return new Promise((resolve, reject) => {
    const child = forkTs(entry, environment);
    child.on('error', reject);
    child.on('exit', (code) => (code === 0 ? resolve() : reject(new Error(`${entry} failed (${code})`))));
  });
}

/** Starts the server and waits until it listens. `stop` ends it gracefully. */
export function startServer(environment) {
  return new Promise((resolve, reject) => {
    const child = forkTs('server/src/main.ts', environment);
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
