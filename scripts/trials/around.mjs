// Tries to walk around the safety rules through the API: athletes with something in the way, drills it forbids (of the
// library, copied loosely, imported loosely), and every way a routine takes. What is let through is a fault, and so is a
// refusal that does not name its rule. Usage: node --import tsx scripts/trials/around.mjs [attempts] [seed]
import { randomUUID } from 'node:crypto';
import { bundledReference } from '../../core/src/reference/bundled.ts';
import { writeDrillFile } from '../../core/src/formats/index.ts';
import { gateTopics } from '../../core/src/safety/index.ts';
import { seededRandom } from '../../core/src/random/index.ts';
import { loosened } from '../../server/src/testing/loose.ts';
import { startServer } from '../lib/server.mjs';
import { throwawayProduct } from '../lib/throwaway.mjs';
import { ACCOUNT, clientOf, throughGate } from '../lib/client.mjs';

const attempts = Number(process.argv[2] ?? 300);
const random = seededRandom(Number(process.argv[3] ?? 1));
const pick = (list) => list[Math.floor(random() * list.length)];
const { drills, precautions } = bundledReference.data;
const kit = [...new Set(drills.flatMap((drill) => drill.equipment))];
const day = (shift) => new Date(Date.now() + shift * 86_400_000).toISOString().slice(0, 10);
const today = day(0);
const ADULT = '2001-05-02';
const chest = gateTopics(bundledReference, [], ADULT, today).find(({ signs }) =>
  signs.some(({ sign }) => sign.id === 'gen-chest'),
);

/** What can stand in the way, and which drills it forbids by the bundled figures alone. */
const BARS = [
  ...precautions
    .filter((precaution) => precaution.severity !== 'modify')
    .map((precaution) => ({
      name: precaution.id,
      forbids: (drill) =>
        drill.contraindications.includes(precaution.id) &&
        !drill.precautionOverrides.some((over) => over.precaution === precaution.id),
      says: /forbids|clearance/,
      set: (client, athlete) =>
        client.post(`/athletes/${athlete}/precautions`, {
          id: randomUUID(),
          precaution: precaution.id,
          setBy: 'R. Halloran',
        }),
    })),
  ...['knee', 'ankle', 'shoulder', 'hip', 'lumbar'].map((region) => ({
    name: `an operation of the ${region}`,
    forbids: (drill) => drill.regions.primary.includes(region),
    says: /operation/,
    set: (client, athlete) =>
      client.post(`/athletes/${athlete}/injuries`, {
        id: randomUUID(),
        region,
        side: region === 'lumbar' ? 'central' : 'left',
        date: day(-30),
        operated: true,
        what: 'by hand',
      }),
  })),
  {
    name: 'an emergency',
    forbids: () => true,
    says: /Stop now|stop-and-refer|emergency/i,
    set: (client, athlete) =>
      client.post(`/athletes/${athlete}/gate`, {
        id: randomUUID(),
        topic: chest.id,
        outcome: 'signs',
        signs: [{ redFlag: 'gen-chest', region: null }],
      }),
  },
  {
    name: 'the age',
    birthDate: day(-14 * 366),
    forbids: (drill) => !drill.youthOk,
    says: /not offered under|under 16/,
    set: () => ({ ok: true }),
  },
];

const itemOf = (drill, id = drill.id) => ({
  id: randomUUID(),
  drill: id,
  side: drill.unilateral ? 'left' : 'both',
  sets: drill.dose.sets.min,
  amount: drill.dose.amount.min,
  measure: drill.dose.measure,
  restSeconds: drill.dose.restSeconds?.min ?? 30,
  setup: {},
});
const issue = (client, athlete, on, item) =>
  client.post(`/athletes/${athlete}/routines`, {
    id: randomUUID(),
    on,
    mode: 'prepare',
    structure: 'two-block-general-to-specific',
    request: { kit },
    items: [item],
  });

/** The id under which the practice keeps a drill of this name; null when it was not taken. */
async function kept(client, name) {
  const { drills: own } = await (await client.get('/figures')).json();
  return own.find((row) => row.drill.name === name)?.drill.id ?? null;
}

/** Every way a routine takes; `before` is a version that was issued while nothing stood in the way. */
const WAYS = {
  issue: ({ client, athlete, drill }) => issue(client, athlete, today, itemOf(drill)),
  'issue for tomorrow': ({ client, athlete, drill }) => issue(client, athlete, day(1), itemOf(drill)),
  'a copy': async ({ client, athlete, drill }) => {
    const copy = loosened(drill);
    await client.post('/library/drills', { id: randomUUID(), drill: copy });
    const id = await kept(client, copy.name);
    return id && issue(client, athlete, today, itemOf(drill, id));
  },
  'an import': async ({ client, athlete, drill }) => {
    const copy = loosened(drill);
    const { drills: file } = JSON.parse(writeDrillFile([copy]));
    await client.post('/library/drills/import', { id: randomUUID(), drills: file });
    const id = await kept(client, copy.name);
    return id && issue(client, athlete, today, itemOf(drill, id));
  },
  print: ({ client, before }) => before && client.get(`/routines/${before.id}/handout.pdf`),
  run: ({ client, before }) =>
    before && client.post('/sessions', { id: randomUUID(), routineId: before.id, date: today }),
  swap: async ({ client, athlete, drill, session }) =>
    session &&
    client.post(`/sessions/${session.id}/events`, {
      events: [
        {
          id: randomUUID(),
          device: athlete,
          seq: 1,
          at: new Date().toISOString(),
          type: 'swapped',
          item: session.item,
          to: itemOf(drill),
        },
      ],
    }),
  decision: ({ client, athlete, before }) =>
    before &&
    client.post(`/athletes/${athlete}/decisions`, {
      id: randomUUID(),
      on: today,
      routineId: before.id,
      verdicts: [{ item: before.item, verdict: 'overruled', instead: 'keep', reason: 'as it was' }],
    }),
};

/** An athlete with a version in force and a session begun, and only then what stands in the way. */
async function stateOf(client, bar, drill) {
  const athlete = randomUUID();
  const birthDate = bar.birthDate ?? ADULT;
  const fields = {
    sport: 'fell running',
    tasks: [{ id: 'fell-running-descent', lead: 'either' }],
    kit: ['wall'],
  };
  await client.post('/athletes', {
    id: athlete,
    name: `Trial ${athlete}`,
    birthDate,
    minutes: 10,
    ...fields,
  });
  await throughGate(client, athlete);
  const item = itemOf(drill);
  const issued = await issue(client, athlete, day(-1), item);
  const version = issued.ok ? await issued.json() : null;
  const begun =
    version && (await client.post('/sessions', { id: randomUUID(), routineId: version.id, date: day(-1) }));
  const session = begun?.ok ? { id: (await begun.json()).id, item: item.id } : null;
  const put = await bar.set(client, athlete);
  if (!put.ok) throw new Error(`${bar.name}: ${put.status} ${await put.text()}`);
  return { client, athlete, drill, before: version && { id: version.id, item: item.id }, session };
}

const { environment, end } = await throwawayProduct('around');
const server = await startServer({ ...environment, YONDER_SIGN_IN_LIMIT: '100000' });
const client = await clientOf(`http://127.0.0.1:${server.port}`, ACCOUNT);
const tried = new Map();
const faults = [];
for (let left = attempts; left > 0; left -= 1) {
  const bar = pick(BARS);
  const drill = pick(drills.filter((one) => !one.needsPartner && bar.forbids(one)));
  if (!drill) continue;
  const state = await stateOf(client, bar, drill);
  for (const [way, go] of Object.entries(WAYS)) {
    const response = await go(state);
    if (!response) continue; // nothing was in force before, or the copy was not taken: that way is shut already
    tried.set(way, (tried.get(way) ?? 0) + 1);
    const answer = await response.text();
    const named = response.status === 422 && bar.says.test(answer);
    if (!named) faults.push(`${way}, ${bar.name}, ${drill.id}: ${response.status} ${answer.slice(0, 400)}`);
  }
}
await server.stop();
await end();
for (const fault of faults.slice(0, 20)) console.log(fault);
const total = [...tried.values()].reduce((sum, n) => sum + n, 0);
console.log(`${total} ways tried (${[...tried].map(([way, n]) => `${way} × ${n}`).join(', ')})`);
console.log(`${faults.length} let through, or refused without naming the rule`);
process.exit(faults.length === 0 && total > 0 ? 0 : 1);
