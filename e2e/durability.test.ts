import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { describe, expect, inject, it, vi } from 'vitest';
import { removeCluster, startCluster } from '../scripts/lib/postgres.mjs';
import { startServer } from '../scripts/lib/server.mjs';
import type { RunningServer } from '../scripts/lib/server.mjs';
import { copiedDatabase } from './driver/product.ts';

interface Session {
  readonly cookie: string;
  readonly token: string;
}

async function signIn(port: number): Promise<Session> {
  const response = await fetch(`http://127.0.0.1:${port}/api/v1/auth/sign-in`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ email: 'rowan@northfell.example', password: 'ridge-walk' }),
  });
  const { csrfToken } = (await response.json()) as { csrfToken: string };
  return { cookie: response.headers.get('set-cookie')?.split(';')[0] ?? '', token: csrfToken };
}

function addAthlete(port: number, { cookie, token }: Session, name: string): Promise<Response> {
  return fetch(`http://127.0.0.1:${port}/api/v1/athletes`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Cookie: cookie, 'X-CSRF-Token': token },
    body: JSON.stringify({ id: randomUUID(), name, birthDate: '2000-01-01' }),
  });
}

/** Writes from four clients at once until the server is gone; returns the names that were acknowledged. */
async function writeUntilGone(server: RunningServer, session: Session, round: number): Promise<string[]> {
  const acknowledged: string[] = [];
  const writer = async (client: number) => {
    for (let n = 0; ; n += 1) {
      const name = `Durable ${round}-${client}-${n}`;
      const response = await addAthlete(server.port, session, name).catch(() => null);
      if (!response) return;
      if (response.status === 201) acknowledged.push(name);
    }
  };
  const writers = [0, 1, 2, 3].map(writer);
  // In the middle of the writes, however fast the machine is.
  await vi.waitFor(() => expect(acknowledged.length).toBeGreaterThan(3 + 3 * round), 30_000);
  server.kill();
  await Promise.all(writers);
  return acknowledged;
}

describe('kill -9', () => {
  it('of the server during writes loses nothing it had acknowledged', async () => {
    const laid = inject('laid');
    const { url, drop } = await copiedDatabase(laid);
    const environment = { ...laid, DATABASE_URL: url };
    let session: Session | null = null;
    const acknowledged: string[] = [];
    for (let round = 0; round < 3; round += 1) {
      const server = await startServer(environment);
      // The session of the first server is still good on the next: it lives in the database.
      session ??= await signIn(server.port);
      acknowledged.push(...(await writeUntilGone(server, session, round)));
    }
    expect(acknowledged.length).toBeGreaterThan(10);
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    const { rows } = await client.query<{ name: string }>(
      "SELECT name FROM athletes WHERE name LIKE 'Durable %'",
    );
    await client.end();
    await drop();
    const names = new Set(rows.map((row) => row.name));
    expect(acknowledged.filter((name) => !names.has(name))).toEqual([]);
    expect(names.size).toBe(rows.length); // nothing is there twice
  }, 120_000);

  it('of the database leaves a folder that starts again with its data', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'yonder-kill-'));
    chmodSync(folder, 0o755);
    const options = { folder: join(folder, 'pg'), secretFile: join(folder, 'secret') };
    const first = await startCluster(options);
    const query = async (url: string, sql: string) => {
      const client = new pg.Client({ connectionString: url });
      client.on('error', () => undefined);
      await client.connect();
      const { rows } = await client.query<{ n: number }>(sql);
      await client.end();
      return rows;
    };
    await query(first.url, 'CREATE TABLE kept (n integer); INSERT INTO kept SELECT generate_series(1, 500)');
    const pid = readFileSync(join(first.folder, 'postmaster.pid'), 'utf8').split('\n')[0] ?? '';
    spawnSync('pkill', ['-9', '-P', pid]);
    process.kill(Number(pid), 'SIGKILL');
    const second = await startCluster(options);
    expect(await query(second.url, 'SELECT count(*)::int AS n FROM kept')).toEqual([{ n: 500 }]);
    await second.stop();
    await removeCluster(second.folder);
    rmSync(folder, { recursive: true, force: true });
  }, 120_000);
});
