// Kills server and database during concurrent writes, round after round, then sends everything again: nothing that was
// acknowledged may be lost, nothing may be there twice. Usage: node --import tsx scripts/trials/kill.mjs [rounds] [seed]
import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { removeCluster, startCluster } from '../lib/postgres.mjs';
import { runOnce, startServer } from '../lib/server.mjs';
import { seededRandom } from '../../core/src/random/index.ts';
import { ACCOUNT, clientOf, ITEM, throughGate } from '../lib/client.mjs';

const rounds = Number(process.argv[2] ?? 30);
const random = seededRandom(Number(process.argv[3] ?? 1));
const folder = mkdtempSync(join(tmpdir(), 'yonder-kill-'));
chmodSync(folder, 0o755);
const options = { folder: join(folder, 'pg'), secretFile: join(folder, 'secret') };
let cluster = await startCluster(options);
const environment = () => ({
  DATABASE_URL: cluster.url,
  YONDER_SESSION_SECRET: 'a secret for throw-away data only',
  YONDER_LOG_LEVEL: 'silent',
  YONDER_SIGN_IN_LIMIT: '1000',
  PORT: '0',
});
await runOnce('migrate', environment());
await runOnce('demo', environment());

/** Everything that was sent: path, body, and whether it was acknowledged. */
const sent = [];
const today = new Date().toISOString().slice(0, 10);
async function send(client, one) {
  const response = await client.post(one.path, one.body).catch(() => null);
  if (response?.ok) one.acknowledged = true;
  else if (response && response.status < 500) one.refused = response.status;
  return one;
}

/** One client's life until the server is gone: athletes, pains, routines, sessions and what happens in them. */
async function writer(client, gone) {
  while (!gone()) {
    const athlete = randomUUID();
    const routine = randomUUID();
    const item = randomUUID();
    const session = randomUUID();
    const event = (type, over = {}) => ({
      id: randomUUID(),
      device: athlete,
      seq: 0,
      at: new Date().toISOString(),
      type,
      ...over,
    });
    const steps = [
      {
        table: 'athletes',
        path: '/athletes',
        body: { id: athlete, name: `Trial ${athlete}`, birthDate: '2000-01-01' },
      },
      {
        table: 'pains',
        path: `/athletes/${athlete}/pains`,
        body: { id: randomUUID(), region: 'knee', side: 'left', when: 'rest', nrs: 2, since: today },
      },
      {
        table: 'routines',
        path: `/athletes/${athlete}/routines`,
        body: {
          id: routine,
          on: today,
          mode: 'prepare',
          structure: 'short-minimum',
          request: {},
          items: [{ id: item, ...ITEM }],
        },
      },
      { table: 'sessions', path: '/sessions', body: { id: session, routineId: routine, date: today } },
      {
        table: 'session_events',
        path: `/sessions/${session}/events`,
        body: { events: [event('started'), event('finished')] },
      },
    ];
    for (const step of steps) {
      if (gone()) return;
      sent.push(step);
      await send(client, step);
      if (!step.acknowledged) break;
      if (step.table === 'athletes') await throughGate(client, athlete).catch(() => undefined);
    }
  }
}

for (let round = 0; round < rounds; round += 1) {
  const server = await startServer(environment());
  let over = false;
  const clients = await Promise.all(
    [1, 2, 3, 4].map(() => clientOf(`http://127.0.0.1:${server.port}`, ACCOUNT)),
  );
  const writers = clients.map((client) => writer(client, () => over));
  await new Promise((done) => setTimeout(done, 300 + random() * 900));
  const databaseToo = round % 2 === 1;
  if (databaseToo) {
    const pid = readFileSync(join(cluster.folder, 'postmaster.pid'), 'utf8').split('\n')[0] ?? '';
    spawnSync('pkill', ['-9', '-P', pid]);
    process.kill(Number(pid), 'SIGKILL');
  }
  server.kill();
  over = true;
  await Promise.all(writers);
  await server.exited;
  if (databaseToo) cluster = await startCluster(options);
}

// Everything once more, twice: what is known answers as it did, what was lost on the way is stored now.
const server = await startServer(environment());
const client = await clientOf(`http://127.0.0.1:${server.port}`, ACCOUNT);
const acknowledged = sent.filter((one) => one.acknowledged);
const lostBefore = await missing(acknowledged);
for (const one of sent) for (let again = 0; again < 2; again += 1) await send(client, one);
const lostAfter = await missing(acknowledged);
const doubled = await doubles();
await server.stop();
await cluster.stop();
await removeCluster(cluster.folder);
rmSync(folder, { recursive: true, force: true });

function idsOf({ body }) {
  return body.events ? body.events.map((event) => event.id) : [body.id];
}

/** Acknowledged things that are not stored. */
async function missing(list) {
  const database = new pg.Client({ connectionString: cluster.url });
  await database.connect();
  let count = 0;
  for (const table of new Set(list.map((one) => one.table))) {
    const ids = list.filter((one) => one.table === table).flatMap(idsOf);
    const { rows } = await database.query(`SELECT id FROM ${table} WHERE id = ANY($1::uuid[])`, [ids]);
    count += ids.length - rows.length;
  }
  await database.end();
  return count;
}

/** Things that are stored more than once: athletes by name, and what an athlete has more of than was sent. */
async function doubles() {
  const database = new pg.Client({ connectionString: cluster.url });
  await database.connect();
  const { rows } = await database.query(`
    SELECT count(*)::int AS n FROM (
      SELECT name FROM athletes WHERE name LIKE 'Trial %' GROUP BY name HAVING count(*) > 1
      UNION ALL SELECT p.athlete_id::text FROM pains p JOIN athletes a ON a.id = p.athlete_id AND a.name LIKE 'Trial %'
        GROUP BY p.athlete_id HAVING count(*) > 1
      UNION ALL SELECT r.athlete_id::text FROM routines r JOIN athletes a ON a.id = r.athlete_id AND a.name LIKE 'Trial %'
        GROUP BY r.athlete_id HAVING count(*) > 1
      UNION ALL SELECT s.routine_id::text FROM sessions s JOIN athletes a ON a.id = s.athlete_id AND a.name LIKE 'Trial %'
        GROUP BY s.routine_id HAVING count(*) > 1) AS twice`);
  await database.end();
  return rows[0].n;
}

console.log(
  `${rounds} rounds, ${sent.length} writes, ${acknowledged.length} acknowledged: ` +
    `${lostBefore + lostAfter} lost, ${doubled} doubled after everything was sent twice more`,
);
process.exit(lostBefore + lostAfter + doubled === 0 && acknowledged.length > rounds * 10 ? 0 : 1);
