// Sends malformed requests to every endpoint of the API: no answer may be a 5xx, the server must live, and nothing of what
// is stored may stand in a log, the database's included. Usage: node --import tsx scripts/trials/malformed.mjs [requests] [seed]
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import pg from 'pg';
import { startServer } from '../lib/server.mjs';
import { throwawayProduct } from '../lib/throwaway.mjs';
import { figureOf } from '../../core/src/figure/bundled.ts';
import { ownDrillOf } from '../../core/src/formats/index.ts';
import { bundledReference } from '../../core/src/reference/bundled.ts';
import { seededRandom } from '../../core/src/random/index.ts';
import { ACCOUNT, clientOf } from '../lib/client.mjs';

const wanted = Number(process.argv[2] ?? 20_000);
const random = seededRandom(Number(process.argv[3] ?? 1));
const pick = (list) => list[Math.floor(random() * list.length)];
/** A word in everything that is stored and sent: wherever a log shows it, health data leaked. */
const SECRET = 'Quillfeather';

const NASTY = [
  null,
  true,
  -1,
  0,
  1e308,
  Number.MAX_SAFE_INTEGER,
  '',
  ' ',
  '\u0000',
  '\ud800',
  `${SECRET}'; DROP TABLE athletes; --`,
  '../../etc/passwd',
  '0001-01-01',
  '9999-12-31',
  '2027-02-30',
  'x'.repeat(5000),
  [],
  {},
  [[[[]]]],
  { __proto__: null, constructor: 1 },
];

/** Something that fits a schema, more or less. */
function fitting(schema, depth = 0) {
  if (!schema || depth > 5) return pick(NASTY);
  if (schema.const !== undefined) return schema.const;
  if (schema.enum) return pick(schema.enum);
  const choice = schema.oneOf ?? schema.anyOf;
  if (choice) return fitting(pick(choice), depth + 1);
  switch (Array.isArray(schema.type) ? schema.type[0] : schema.type) {
    case 'object':
      return Object.fromEntries(
        Object.entries(schema.properties ?? {}).map(([key, value]) => [key, fitting(value, depth + 1)]),
      );
    case 'array':
      return Array.from({ length: 1 + Math.floor(random() * 2) }, () => fitting(schema.items, depth + 1));
    case 'integer':
    case 'number':
      return schema.minimum ?? 1;
    case 'boolean':
      return random() < 0.5;
    case 'string':
      if (schema.format === 'uuid') return randomUUID();
      return /date/.test(schema.description ?? '') || schema.pattern?.includes('\\d') ? '2027-02-01' : SECRET;
    default:
      return pick(NASTY);
  }
}

/** One place of a value made nasty, or taken away, or something added. */
function spoiled(value) {
  if (typeof value !== 'object' || value === null || random() < 0.15) return pick(NASTY);
  const copy = Array.isArray(value) ? [...value] : { ...value };
  const keys = Object.keys(copy);
  if (keys.length === 0 || random() < 0.1)
    return { ...copy, [pick(['extra', '__proto__', '\u0000', SECRET])]: pick(NASTY) };
  const key = pick(keys);
  if (random() < 0.2) Reflect.deleteProperty(copy, key);
  else copy[key] = random() < 0.6 ? spoiled(copy[key]) : pick(NASTY);
  return copy;
}

function resolved(document, schema) {
  return JSON.parse(JSON.stringify(schema), (_key, value) => {
    if (value && typeof value === 'object' && typeof value.$ref === 'string')
      return document.components.schemas[value.$ref.split('/').pop()];
    return value;
  });
}

const { environment, url, logFile, end } = await throwawayProduct('malformed');
const lines = [];
const server = await startServer(
  { ...environment, YONDER_LOG_LEVEL: 'info', YONDER_SIGN_IN_LIMIT: '100000' },
  (line) => lines.push(line),
);
const base = `http://127.0.0.1:${server.port}`;
let client = await clientOf(base, ACCOUNT);
const document = await (await fetch(`${base}/api/v1/openapi.json`)).json();
const { items } = await (await client.get('/athletes')).json();
const athlete = items[0].id;
const update = await (await client.get(`/athletes/${athlete}`)).json();
const known = {
  athleteId: athlete,
  test: 'wblt-distance',
  side: 'left',
  region: 'knee',
  routineId: (await (await client.get(`/athletes/${athlete}/routines`)).json()).items[0]?.id ?? randomUUID(),
  sessionId: (await (await client.get(`/athletes/${athlete}/sessions`)).json()).items[0]?.id ?? randomUUID(),
  screeningId:
    (await (await client.get(`/athletes/${athlete}/screenings`)).json()).items[0]?.id ?? randomUUID(),
};
// So that there is something to leak: a name that stands nowhere else.
await client.raw(
  'POST',
  '/athletes',
  JSON.stringify({ id: randomUUID(), name: `${SECRET} ${update.name.length}`, birthDate: '2001-05-02' }),
);

const operations = Object.entries(document.paths).flatMap(([path, methods]) =>
  Object.entries(methods).map(([method, operation]) => ({
    path,
    method,
    body: operation.requestBody
      ? resolved(document, operation.requestBody.content['application/json'].schema)
      : undefined,
  })),
);
/** Bodies that are right, where what a schema gives is refused at its door: a drill with its picture. */
const drillSource = bundledReference.data.drills[0];
const RIGHT = {
  '/library/drills': () => ({
    id: randomUUID(),
    drill: {
      ...ownDrillOf(drillSource, 'own-new', SECRET),
      picture: figureOf(pick(bundledReference.data.drills).id) ?? undefined,
    },
  }),
};
const open = operations.filter(({ path }) => !path.startsWith('/auth/'));

function request() {
  const { path, method, body } = pick(open);
  const place = path.replace(/\{(\w+)\}/g, (_, name) =>
    random() < 0.8
      ? (known[name] ?? randomUUID())
      : encodeURIComponent(pick([SECRET, '\u0000', '%', '..', '9'.repeat(300), 'left'])),
  );
  const query =
    random() < 0.3
      ? `?${pick(['on', 'limit', 'after', 'version', 'athlete', SECRET])}=${pick(['', '-1', '9999-99-99', SECRET, '%00', '%ED%A0%80'])}`
      : '';
  const right = method === 'post' && random() < 0.8 ? RIGHT[path]?.() : undefined;
  let text =
    body === undefined && random() < 0.9 ? undefined : JSON.stringify(spoiled(right ?? fitting(body)));
  if (text !== undefined && random() < 0.05) text = text.slice(0, Math.floor(text.length / 2));
  const headers =
    random() < 0.04
      ? { 'Content-Type': pick(['text/plain', 'application/xml', 'application/json; charset=utf-7']) }
      : {};
  return {
    method: method.toUpperCase(),
    place: place + query,
    text: method === 'get' ? undefined : text,
    headers,
  };
}

const counts = new Map();
const faults = [];
let left = wanted;
await Promise.all(
  Array.from({ length: 8 }, async () => {
    while (left > 0) {
      left -= 1;
      const { method, place, text, headers } = request();
      try {
        const response = await client.raw(method, place, text, headers);
        const answer = await response.text();
        // One of the requests signed the account out everywhere: that is no reason to be spared the rest.
        if (response.status === 401) client = await clientOf(base, ACCOUNT);
        counts.set(response.status, (counts.get(response.status) ?? 0) + 1);
        if (response.status >= 500)
          faults.push(
            `${response.status} ${method} ${place} ${text?.slice(0, 300)} → ${answer.slice(0, 200)}`,
          );
      } catch (error) {
        faults.push(`no answer: ${method} ${place} ${error.message}`);
      }
    }
  }),
);
const alive = (await fetch(`${base}/readyz`)).status === 200;
await server.stop();
const names = await (async () => {
  const database = new pg.Client({ connectionString: url });
  await database.connect();
  const { rows } = await database.query('SELECT DISTINCT name FROM athletes');
  await database.end();
  return rows.map((row) => row.name.trim()).filter((name) => name.length > 3);
})();
const logs = [...lines, readFileSync(logFile, 'utf8')].join('\n');
const leaked = [SECRET, ...names].filter((word) => logs.includes(word));
await end();

for (const fault of faults.slice(0, 20)) console.log(fault);
console.log(
  `${wanted} malformed requests over ${open.length} operations: ${[...counts]
    .sort()
    .map(([status, n]) => `${status} × ${n}`)
    .join(', ')}`,
);
console.log(
  `${faults.length} faults of ours, server ${alive ? 'alive' : 'DEAD'}, ${lines.length} log lines, ` +
    `${leaked.length} secrets in the logs${leaked.length ? `: ${leaked.slice(0, 5).join(', ')}` : ''}`,
);
process.exit(faults.length === 0 && alive && leaked.length === 0 && lines.length > 0 ? 0 : 1);
