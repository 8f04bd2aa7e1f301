import type { ElementHandle } from 'puppeteer-core';

/** For so long it is tried, in ms; and so often in a row an element has to be found where it was, at every frame. */
const TRYING = 30_000;
const FRAMES = 3;

/** Waits until an element can be pressed and stands still: the place that is measured is else soon another's. */
function standsStill(element: ElementHandle): Promise<void> {
  return element.evaluate(
    (node, frames, until) => {
      node.scrollIntoView({ block: 'center' });
      return new Promise<void>((done, fail) => {
        let before = '';
        let alike = 0;
        const look = () => {
          if (!node.isConnected) return fail(new Error('it is detached'));
          const { x, y, width, height } = node.getBoundingClientRect();
          const now = [x, y, width, height].join();
          alike = now === before && width > 0 && !node.matches(':disabled') ? alike + 1 : 0;
          before = now;
          if (alike >= frames) return done();
          if (Date.now() > until) return fail(new Error('it can never be pressed'));
          requestAnimationFrame(look);
        };
        look();
      });
    },
    FRAMES,
    Date.now() + TRYING,
  );
}

/** From here on a pointer that goes down elsewhere does nothing; asked for at the end, whether it came down here. */
function guard(element: ElementHandle) {
  return element.evaluateHandle((node) => {
    const kinds = ['pointerdown', 'mousedown', 'pointerup', 'mouseup', 'click'] as const;
    let landed = false;
    let instead = 'nothing';
    const hold = (event: Event) => {
      const path = event.composedPath();
      const own = path.some(
        (one) => one === node || (one instanceof HTMLLabelElement && one.control === node),
      );
      if (own) landed = true;
      else if (!landed) {
        const [target] = path;
        if (target instanceof Element)
          instead = `${target.outerHTML.slice(0, 60)} ${target.textContent.slice(0, 200)}`;
        event.preventDefault();
        event.stopImmediatePropagation();
      }
    };
    for (const kind of kinds) window.addEventListener(kind, hold, true);
    return () => {
      for (const kind of kinds) window.removeEventListener(kind, hold, true);
      return landed || instead;
    };
  });
}

/**
 * Presses what `find` finds, where it stands. A page that moves or draws it anew meanwhile would have the press somewhere else:
 * then nothing is pressed, and it is looked for again, as a person would.
 */
export async function press(find: () => Promise<ElementHandle>): Promise<void> {
  const until = Date.now() + TRYING;
  for (;;) {
    const element = await find();
    const came = await (async () => {
      await standsStill(element);
      const ended = await guard(element);
      const refused = await element.click().then(
        () => null,
        (error: Error) => error,
      );
      // Where the press led to another page nothing is left to ask.
      const where = await ended.evaluate((end) => end()).catch(() => refused === null);
      if (refused && where !== true) throw refused;
      return where;
    })().catch((error: Error) => {
      if (!/detached|not clickable|context/i.test(error.message)) throw error;
      return error.message;
    });
    if (came === true) return;
    if (Date.now() > until) throw new Error(`a press comes down elsewhere every time: ${String(came)}`);
  }
}
