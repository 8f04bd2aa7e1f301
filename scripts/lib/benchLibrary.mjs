import { launchBrowser } from './browser.mjs';
import { startServer } from './server.mjs';
import { throwawayProduct } from './throwaway.mjs';

/** Frames of the library's list while it is scrolled from its first drill to its last, with every picture in it. */
export async function libraryScroll() {
  const { environment, end } = await throwawayProduct('scroll');
  const server = await startServer(environment);
  const { browser, close } = await launchBrowser();
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  const base = `http://127.0.0.1:${server.port}`;
  await page.goto(`${base}/sign-in`, { waitUntil: 'networkidle0' });
  await page.type('input[type=email]', 'rowan@northfell.example');
  await page.type('input[type=password]', 'ridge-walk');
  await page.keyboard.press('Enter');
  await page.waitForFunction(() => location.pathname === '/today');
  await page.goto(`${base}/library`, { waitUntil: 'networkidle0' });
  await page.waitForSelector('ol[aria-label="Drills"] svg');
  const rows = await page.$eval('ol[aria-label="Drills"]', (list) => Math.round(list.clientHeight / 56));
  const frames = () =>
    page.evaluate(
      () =>
        new Promise((done) => {
          const list = document.querySelector('ol[aria-label="Drills"]');
          const box = list?.parentElement;
          if (!list || !box) throw new Error('no list');
          box.scrollTop = 0;
          const times = [];
          let last = performance.now();
          const step = (now) => {
            times.push(now - last);
            last = now;
            box.scrollTop += 20;
            if (box.scrollTop + box.clientHeight < box.scrollHeight - 1) requestAnimationFrame(step);
            else done(times.slice(1));
          };
          requestAnimationFrame(step);
        }),
    );
  const first = await frames();
  const again = await frames();
  await close();
  await server.stop();
  await end();
  const rate = (times) => ({
    perSecond: Math.round((1000 * times.length) / times.reduce((sum, t) => sum + t, 0)),
    late: Math.round((100 * times.filter((t) => t > 25).length) / times.length),
    worst: Math.round(Math.max(...times)),
  });
  return { rows, first: rate(first), again: rate(again) };
}
