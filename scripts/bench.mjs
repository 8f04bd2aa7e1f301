// Timings, as ratios within one run where something can be compared; nothing here is asserted.
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from './lib/paths.mjs';
import { freePort } from './lib/postgres.mjs';
import { run, runVisible } from './lib/run.mjs';
import { checkNode, ensureModules, ensurePackages } from './lib/setup.mjs';

checkNode();
await ensurePackages({ browser: true });
await ensureModules();
const { launchBrowser } = await import('./lib/browser.mjs');

const kB = (bytes) => `${Math.round(bytes / 1000)} kB`;
/** First load of the libraries alone (React, router, RTK Query, a few components, charts), measured once: gzip, in kB. */
const FLOOR = { js: 198, css: 35 };

/** Opens the page and adds up what came over the wire until it could be used. */
async function firstLoad(base) {
  const { browser, close } = await launchBrowser();
  const page = await browser.newPage();
  const sizes = { js: 0, css: 0, font: 0, other: 0 };
  const types = new Map();
  const session = await page.createCDPSession();
  await session.send('Network.enable');
  session.on('Network.responseReceived', ({ requestId, response }) =>
    types.set(requestId, response.mimeType),
  );
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    const type = types.get(requestId) ?? '';
    const kind = /javascript/.test(type)
      ? 'js'
      : /css/.test(type)
        ? 'css'
        : /font/.test(type)
          ? 'font'
          : 'other';
    sizes[kind] += encodedDataLength;
  });
  await page.goto(base, { waitUntil: 'networkidle0' });
  await page.waitForSelector('::-p-aria([name="E-mail"])');
  await close();
  return sizes;
}

/** From a bare clone, with nothing installed in it, to the door being open. */
async function cloneToUsable() {
  const folder = mkdtempSync(join(tmpdir(), 'yonder-clone-'));
  const clone = join(folder, 'yonder');
  const start = Date.now();
  run('git', ['clone', '--quiet', root, clone]);
  const port = await freePort();
  const demo = spawn('npm', ['run', '--silent', 'demo'], {
    cwd: clone,
    env: { ...process.env, PORT: String(port), INIT_CWD: clone },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise((resolve, reject) => {
    demo.stdout.on('data', (chunk) => /is ready/.test(String(chunk)) && resolve());
    demo.on('exit', (code) => reject(new Error(`the demo ended (${code})`)));
  });
  const sizes = await firstLoad(`http://127.0.0.1:${port}/`);
  const seconds = (Date.now() - start) / 1000;
  demo.removeAllListeners('exit');
  demo.kill('SIGINT');
  await new Promise((resolve) => demo.on('exit', resolve));
  rmSync(folder, { recursive: true, force: true });
  return { seconds, sizes };
}

async function server() {
  const { benchServer } = await import('./lib/benchServer.mjs');
  const size = { athletes: 500, screenings: 12, tests: 30 };
  const f = await benchServer(size);
  const ms = (value) => `${value.toFixed(0)} ms`;
  console.log(
    `Athletes list, ${size.athletes} athletes with ${f.results} results: answered in ${ms(f.firstMs)} while they are still judged, ` +
      `all judged after ${(f.judgedMs / 1000).toFixed(1)} s; then ${f.warmMs.toFixed(1)} ms ` +
      `(${(f.warmMs / f.bareMs).toFixed(2)} x a bare query of the same rows, ${f.bareMs.toFixed(1)} ms)`,
  );
  for (const [what, load] of Object.entries(f.loads))
    console.log(
      `20 clients for 20 s on the ${what}: ${load.rate.toFixed(0)} answers a second, median ${load.p50} ms, ` +
        `97.5 % within ${load.p97} ms, ${load.refused} refused`,
    );
  const { handouts, healthMs, ...printing } = f.printing;
  console.log(
    `${handouts} handouts at once: done after ${(printing.ms / 1000).toFixed(1)} s; meanwhile /healthz answers in ${healthMs.toFixed(1)} ms, ` +
      `the longest ${ms(printing.longestMs)}`,
  );
  const { longestMs, stored, unavailable } = f.rush;
  console.log(
    `40 imports and issues at once, a pool of 10: ${stored} stored, ${unavailable} times 503, longest ${ms(longestMs)}`,
  );
  console.log(
    `Cold pages: ${Object.entries(f.pages)
      .map(([name, taken]) => `${name} ${ms(taken)}`)
      .join(', ')}`,
  );
}

if (process.argv.includes('--server')) {
  await server();
  process.exit(0);
}
const { seconds, sizes } = await cloneToUsable();
console.log(
  `From bare clone to usable page: ${seconds.toFixed(0)} s (packages from npm's cache where it has them)`,
);
console.log(
  `First load, gzip: ${kB(sizes.js)} JavaScript (floor of the libraries ${FLOOR.js} kB, ratio ${(sizes.js / 1000 / FLOOR.js).toFixed(2)}), ` +
    `${kB(sizes.css)} CSS (floor ${FLOOR.css} kB, ratio ${(sizes.css / 1000 / FLOOR.css).toFixed(2)}), ${kB(sizes.font)} fonts, ${kB(sizes.other)} else`,
);
await server();
const { libraryScroll } = await import('./lib/benchLibrary.mjs');
const scrolled = await libraryScroll();
for (const [time, { perSecond, late, worst }] of [
  ['first', scrolled.first],
  ['again', scrolled.again],
])
  console.log(
    `library, ${scrolled.rows} rows scrolled 20 px a frame, ${time}: ${perSecond} frames a second, ${late} % late, the longest ${worst} ms`,
  );
process.exit(await runVisible(process.execPath, ['--import', 'tsx', 'core/bench/bench.ts'], { cwd: root }));
