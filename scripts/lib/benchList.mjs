// Times the athletes list of a large practice: the server's answer, and the page.
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { launchBrowser } from './browser.mjs';
import { buildWeb } from './build.mjs';
import { bareListMs, fillAthletes } from './manyAthletes.mjs';
import { removeCluster, startCluster } from './postgres.mjs';
import { runOnce, startServer } from './server.mjs';

const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

async function signedIn(base) {
  const { browser, close } = await launchBrowser();
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  await page.goto(`${base}/sign-in`, { waitUntil: 'networkidle0' });
  await page.type('input[type=email]', 'rowan@northfell.example');
  await page.type('input[type=password]', 'ridge-walk');
  await page.keyboard.press('Enter');
  await page.waitForSelector('table');
  return { page, close };
}

/** Fetches the list in the page; milliseconds and how many are still to be judged. */
const fetchList = (page) =>
  page.evaluate(async () => {
    const start = performance.now();
    const { pending } = await (await fetch('/api/v1/athletes')).json();
    return { ms: performance.now() - start, pending };
  });

/** Milliseconds from asking for the page until rows can be read. */
async function pageMs(page, base) {
  const start = performance.now();
  await page.goto(`${base}/athletes`, { waitUntil: 'domcontentloaded' });
  await page.waitForSelector('tbody tr a');
  return performance.now() - start;
}

/** Measures and returns the figures; the database is thrown away. */
export async function benchList(size) {
  const folder = mkdtempSync(join(tmpdir(), 'yonder-bench-'));
  chmodSync(folder, 0o755);
  const cluster = await startCluster({
    folder: join(folder, 'pg'),
    secretFile: join(folder, 'secret'),
    durable: false,
  });
  const environment = {
    DATABASE_URL: cluster.url,
    YONDER_SESSION_SECRET: 'a secret for timing only',
    YONDER_WEB_DIST: await buildWeb(),
    YONDER_LOG_LEVEL: 'error',
    PORT: '0',
  };
  await runOnce('server/src/demo/main.ts', environment);
  const results = await fillAthletes(cluster.url, size);
  const server = await startServer(environment);
  const base = `http://127.0.0.1:${server.port}`;
  const start = performance.now();
  const { page, close } = await signedIn(base);
  const first = await fetchList(page);
  let last = first;
  while (last.pending > 0) {
    await new Promise((done) => setTimeout(done, 500));
    last = await fetchList(page);
  }
  const judgedMs = performance.now() - start;
  const warm = [];
  for (let i = 0; i < 9; i += 1) warm.push((await fetchList(page)).ms);
  const pages = [];
  for (let i = 0; i < 5; i += 1) pages.push(await pageMs(page, base));
  const bare = await bareListMs(cluster.url);
  await close();
  await server.stop();
  await cluster.stop();
  await removeCluster(cluster.folder);
  rmSync(folder, { recursive: true, force: true });
  return { results, firstMs: first.ms, judgedMs, warmMs: median(warm), pageMs: median(pages), bareMs: bare };
}
