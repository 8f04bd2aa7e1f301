// Takes the pictures of docs/screenshots/ from the demo data, on a database that is thrown away.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './lib/paths.mjs';
import { run } from './lib/run.mjs';
import { startServer } from './lib/server.mjs';
import { ensureModules, ensurePackages } from './lib/setup.mjs';

await ensurePackages({ browser: true });
await ensureModules();
const { throwawayProduct } = await import('./lib/throwaway.mjs');
const { launchBrowser } = await import('./lib/browser.mjs');

const out = join(root, 'docs', 'screenshots');
mkdirSync(out, { recursive: true });
const { environment, end } = await throwawayProduct('shots');
const server = await startServer(environment);
const base = `http://127.0.0.1:${server.port}`;
const { browser, close } = await launchBrowser();
const page = await browser.newPage();
await page.setViewport({ width: 1280, height: 800 });
const scheme = (value) => page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value }]);
const pause = (ms) => new Promise((done) => setTimeout(done, ms));
const press = (text) =>
  page.evaluate((wanted) => {
    const button = [...document.querySelectorAll('button[data-variant], button.mantine-Button-root')].find(
      (b) => b.textContent === wanted,
    );
    button?.click();
  }, text);
const shoot = (name) => page.screenshot({ path: join(out, `${name}.png`) });

await scheme('light');
await page.goto(`${base}/sign-in`, { waitUntil: 'networkidle0' });
await page.type('input[type=email]', 'rowan@northfell.example');
await page.type('input[type=password]', 'ridge-walk');
await page.keyboard.press('Enter');
await page.waitForFunction(() => location.pathname === '/today');
await page.waitForSelector('main h2');
await pause(1000);
await shoot('today');
await page.goto(`${base}/athletes`, { waitUntil: 'networkidle0' });
await page.waitForSelector('table');
await pause(500);
await shoot('athletes');
await page.goto(`${base}/practice`, { waitUntil: 'networkidle0' });
await pause(500);
await shoot('practice');
const ids = await page.evaluate(async () => {
  const { items: rows } = await (await fetch('/api/v1/athletes')).json();
  return Object.fromEntries(rows.map((row) => [row.name.split(' ')[0], row.id]));
});
const visit = async (name, path) => {
  await page.goto(`${base}/athletes/${ids[name]}/${path}`, { waitUntil: 'networkidle0' });
  await pause(500);
};
await visit('Pell', 'story');
await shoot('story');
await visit('Wren', 'gate');
for (let topics = 0; topics < 2; topics += 1) {
  await page.keyboard.press('n');
  await pause(700);
}
await shoot('gate');
/** Opens Screen and says that nothing is new. */
const screenOf = async (name) => {
  await visit(name, 'screen');
  await page.keyboard.press('n');
  await page.waitForSelector('#test-title');
  await pause(500);
};
await screenOf('Mira');
await page.focus('table input');
for (const value of ['8.1', '8.0', '8.2', '0', '11.0', '11.2', '11.1', '0']) {
  await page.keyboard.type(value);
  if (
    value !== '0' ||
    (await page.evaluate(() => document.activeElement?.getAttribute('aria-label'))) === 'Pain left'
  ) {
    await page.keyboard.press('Enter');
  }
  await pause(60);
}
await pause(700);
await shoot('screen');
await visit('Mira', 'ridge');
await shoot('ridge');
await screenOf('Iris');
await page.evaluate(() => {
  const tests = [...document.querySelectorAll('ol button')];
  tests.find((b) => b.innerText.startsWith('Bent-knee isometric plantarflexion'))?.click();
});
await pause(400);
await press('Capture from handheld dynamometer');
await pause(800);
await press('Record');
await pause(7000);
await shoot('capture');
await page.goto(`${base}/figures?test=heel-raise-reps`, { waitUntil: 'networkidle0' });
await page.click('button[aria-label="Edit Short below"]');
await page.type('input[placeholder^="source"]', 'our own runners, two seasons');
await page.click('[data-editor] input', { count: 3 });
await page.keyboard.type('26');
await press('Whose findings change?');
await pause(2500);
await shoot('figures');
await page.goto(`${base}/methods?school=release-first`, { waitUntil: 'networkidle0' });
await page.click('[role="radio"][aria-label^="Release first"]');
await press('Which routines would change?');
await page.waitForFunction(() => document.body.innerText.includes('built otherwise'), { timeout: 120_000 });
await pause(300);
await shoot('methods');
await scheme('dark');
await visit('Joss', 'ridge');
await shoot('ridge-dark');
await scheme('light');
await visit('Joss', 'routine');
await press('Choose drills for these');
await page.waitForFunction(() => document.body.innerText.includes('Proven'), { timeout: 30_000 });
await pause(600);
await shoot('routine');
/** A list as on paper, for an occasion that has none yet. */
const PAPER = `Get warm (5 min):
walk or jog 3 min before
ankle rocks kneeling 2x10 L only
NO jumping

A1 goblet squat 3x8 @12kg 3-1-1
A2 SL bridge 3x8 ea
rest 90 s b/w sets

Wadenheben einbeinig 2x12 bds.
1 leg stand eyes shut 30 s each
band pull aparts 20
calf stretch wall hold 30 s
Anwen's foot thing with the marble 1 min
stop if pain > 3/10`;
await visit('Nell', 'routine?for=at-home');
await press('Take over a list…');
await page.waitForSelector('textarea');
await page.evaluate((text) => {
  const data = new DataTransfer();
  data.setData('text/plain', text);
  document
    .querySelector('textarea')
    ?.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
}, PAPER);
await page.waitForSelector('[aria-label="Lines of the list"]');
await pause(800);
await shoot('takeover');
/** Presses the first button whose words begin so. */
const pressLike = (start) =>
  page.evaluate(
    (wanted) =>
      [...document.querySelectorAll('button')].find((b) => b.textContent?.startsWith(wanted))?.click(),
    start,
  );
await pressLike('Brisk walk');
await pause(300);
await pressLike('Take over,');
await page.waitForSelector('[data-testid="total"]');
await pause(2500);
await shoot('compose');
await page.goto(`${base}/library?restriction=ankle-dorsiflexion-limit&drill=half-kneeling-ankle-rock`, {
  waitUntil: 'networkidle0',
});
await page.waitForSelector('ol[aria-label="Drills"] svg path');
await pause(900);
await shoot('library');
await page.goto(`${base}/library/new?copy=half-kneeling-ankle-rock`, { waitUntil: 'networkidle0' });
await press('Change the picture');
await page.waitForSelector('circle[aria-label="Left knee"]');
await pause(500);
await shoot('drawing');
await visit('Mira', 'progress');
await shoot('progress');
const pdf = await page.evaluate(async (id) => {
  const { items } = await (await fetch(`/api/v1/athletes/${id}/routines`)).json();
  const [routine] = items;
  const response = await fetch(`/api/v1/routines/${routine.id}/handout.pdf`);
  return [...new Uint8Array(await response.arrayBuffer())];
}, ids.Mira);
run('pdftoppm', ['-png', '-r', '75', '-f', '1', '-l', '1', '-singlefile', '-', join(out, 'handout')], {
  input: Buffer.from(pdf),
  encoding: undefined,
});
await page.setViewport({ width: 820, height: 1180 });
await visit('Mira', 'run');
await page.$$eval('main [role="alert"] input[type="radio"][value="true"]', (held) => {
  held.forEach((radio) => radio.click());
});
await pause(300);
await press('Start');
await pause(1200);
await press('Go');
await pause(9000);
await shoot('run');

await close();
await server.stop();
await end();
console.log(`Pictures are in ${out}; open them before you commit.`);
