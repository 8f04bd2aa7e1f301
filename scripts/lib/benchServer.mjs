// Times a large practice on the built product: the list, the record, many clients at once, a small pool, cold pages.
import { randomUUID } from 'node:crypto';
import autocannon from 'autocannon';
import { launchBrowser } from './browser.mjs';
import { ACCOUNT, clientOf, ITEM, throughGate } from './client.mjs';
import { bareListMs, fillAthletes } from './manyAthletes.mjs';
import { startServer } from './server.mjs';
import { throwawayProduct } from './throwaway.mjs';

const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
// Packing is for the network; here it would only hide what the answer costs.
const UNPACKED = { 'Accept-Encoding': 'identity' };

async function timed(work) {
  const start = performance.now();
  const value = await work();
  return { value, ms: performance.now() - start };
}

/** The list: first answer, until all are judged, and once nothing is left to be worked out. */
async function listFigures(client, url) {
  const fetchList = async () => (await client.get('/athletes?limit=1000')).json();
  const start = performance.now();
  const first = await timed(fetchList);
  let { pending } = first.value;
  while (pending > 0) {
    await new Promise((done) => setTimeout(done, 500));
    ({ pending } = await fetchList());
  }
  const judgedMs = performance.now() - start;
  const warm = [];
  for (let i = 0; i < 25; i += 1) warm.push((await timed(fetchList)).ms);
  return { firstMs: first.ms, judgedMs, warmMs: median(warm), bareMs: await bareListMs(url, 25) };
}

/** Twenty clients for a while: answers a second, milliseconds at the median and at 97.5 %, refusals. */
async function load(base, client, path, seconds) {
  const result = await autocannon({
    url: `${base}/api/v1${path}`,
    connections: 20,
    duration: seconds,
    headers: client.headers,
  });
  const { latency, requests, non2xx, errors } = result;
  return { rate: requests.average, p50: latency.p50, p97: latency.p97_5, refused: non2xx + errors };
}

/** Forty imports and issues at once. */
async function rush(client, ids) {
  const rows = (athleteId) =>
    Array.from({ length: 20 }, (_, n) => ({
      athleteId,
      date: `2026-01-${String(n + 1).padStart(2, '0')}`,
      result: { test: 'heel-raise-reps', side: 'left', trials: [14 + n] },
    }));
  const on = new Date().toISOString().slice(0, 10);
  const routine = { on, mode: 'prepare', structure: 'short-minimum', request: {} };
  const athletes = ids.slice(0, 20);
  for (const id of athletes) await throughGate(client, id);
  const all = await Promise.all(
    athletes.flatMap((id) => [
      timed(() => client.post('/screenings/import', { id: randomUUID(), rows: rows(id) })),
      timed(() =>
        client.post(`/athletes/${id}/routines`, {
          id: randomUUID(),
          ...routine,
          items: [{ id: randomUUID(), ...ITEM }],
        }),
      ),
    ]),
  );
  return {
    longestMs: Math.max(...all.map((one) => one.ms)),
    stored: all.filter((one) => one.value.status === 201).length,
    unavailable: all.filter((one) => one.value.status === 503).length,
  };
}

/** Milliseconds until a page can be read, in a browser that has nothing of it yet. */
async function coldPages(base, athlete) {
  const pages = {
    athletes: ['/athletes', 'tbody tr a'],
    ridge: [`/athletes/${athlete}/ridge`, 'svg[role="group"], svg[role="img"], svg'],
    routine: [`/athletes/${athlete}/routine`, 'main button'],
  };
  const taken = {};
  for (const [name, [path, ready]] of Object.entries(pages)) {
    const { browser, close } = await launchBrowser();
    const page = await browser.newPage();
    const api = await page.goto(`${base}/api/v1/auth/me`).then(() => page);
    await api.evaluate(
      (account) =>
        fetch('/api/v1/auth/sign-in', {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify(account),
        }),
      ACCOUNT,
    );
    await new Promise((done) => setTimeout(done, 1000)); // the browser is idle
    const { ms } = await timed(async () => {
      await page.goto(`${base}${path}`, { waitUntil: 'domcontentloaded' });
      await page.waitForSelector(`main ${ready.replace(/^main /, '')}`);
    });
    taken[name] = ms;
    await close();
  }
  return taken;
}

/** The handouts of everybody who has a routine, all asked for at once, and meanwhile: is the server there? */
async function whilePrinting(base, client, athletes) {
  const printed = [];
  for (const { id } of athletes) {
    const { items = [] } = await (await client.get(`/athletes/${id}/routines`)).json();
    if (items[0]) printed.push(items[0].id);
  }
  const print = async (id) =>
    (await (await client.get(`/routines/${id}/handout.pdf`)).arrayBuffer()).byteLength;
  await print(printed[0]); // the thread has begun
  let printing = true;
  const health = [];
  const ask = (async () => {
    while (printing) health.push((await timed(() => fetch(`${base}/healthz`))).ms);
  })();
  const { ms } = await timed(() => Promise.all(printed.map(print)));
  printing = false;
  await ask;
  return { handouts: printed.length, ms, healthMs: median(health), longestMs: Math.max(...health) };
}

/** Measures and returns the figures; the database is thrown away. */
export async function benchServer(size, seconds = 20) {
  const { environment, url, end } = await throwawayProduct('bench');
  const results = await fillAthletes(url, size);
  const server = await startServer(environment);
  try {
    const base = `http://127.0.0.1:${server.port}`;
    const client = await clientOf(base, ACCOUNT, UNPACKED);
    const list = await listFigures(client, url);
    const { items } = await (await client.get('/athletes?limit=1000')).json();
    const printing = await whilePrinting(
      base,
      client,
      items.filter((one) => !one.name.startsWith('Athlete ')),
    );
    const others = items.filter((one) => one.name.startsWith('Athlete ')).map((one) => one.id);
    const loads = {
      list: await load(base, client, '/athletes', seconds),
      record: await load(base, client, `/athletes/${others[0]}/case`, seconds),
    };
    const pages = await coldPages(base, others[1]);
    return { results, ...list, printing, loads, rush: await rush(client, others), pages };
  } finally {
    await server.stop();
    await end();
  }
}
