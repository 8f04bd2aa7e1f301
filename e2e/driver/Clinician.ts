import type { ElementHandle, Page } from 'puppeteer-core';

const SIGN_IN = { email: 'rowan@northfell.example', password: 'ridge-walk' };

/** A clinician at the keyboard: finds things by role and label, as a person or a screen reader would. */
export class Clinician {
  readonly page: Page;
  private readonly base: string;

  constructor(page: Page, base: string) {
    this.page = page;
    this.base = base;
  }

  /** Opens a path and waits until the network is quiet. */
  async opens(path: string): Promise<void> {
    await this.page.goto(`${this.base}${path}`, { waitUntil: 'networkidle0' });
  }

  async signsIn(): Promise<void> {
    await this.opens('/sign-in');
    await this.fills('E-mail', SIGN_IN.email);
    await this.fills('Password', SIGN_IN.password);
    await this.presses('Sign in');
    await this.sees('Add athlete', 'link');
  }

  /** Waits for something with an accessible name and role, and returns it. */
  async sees(name: string, role: string, timeout = 30_000): Promise<ElementHandle> {
    const found = await this.page.waitForSelector(`::-p-aria([name="${name}"][role="${role}"])`, { timeout });
    if (!found) throw new Error(`no ${role} "${name}"`);
    return found;
  }

  /** Waits until the page's text contains something; returns the whole text. */
  async reads(text: string | RegExp): Promise<string> {
    const plain = typeof text === 'string';
    await this.page
      .waitForFunction(
        (wanted: string, isPlain: boolean) => {
          const shown = document.body.innerText;
          return isPlain ? shown.includes(wanted) : new RegExp(wanted).test(shown);
        },
        { timeout: 30_000 },
        plain ? text : text.source,
        plain,
      )
      .catch(async (error: Error) => {
        const shown = await this.page.evaluate(() => document.body.innerText).catch(() => '');
        throw new Error(`"${String(text)}" is not to be read (${error.message}) in: ${shown.slice(0, 3000)}`);
      });
    return this.page.evaluate(() => document.body.innerText);
  }

  async presses(name: string, role = 'button'): Promise<void> {
    const press = async () => {
      const element = await this.sees(name, role);
      // Pressed where it stands: while the page still moves, the place that was measured is soon another's.
      await element.evaluate((node) => {
        node.scrollIntoView({ block: 'center' });
        return new Promise<void>((done) => {
          let before = '';
          const look = () => {
            const { x, y, width, height } = node.getBoundingClientRect();
            const now = [x, y, width, height].join();
            if (now === before) return done();
            before = now;
            requestAnimationFrame(() => requestAnimationFrame(look));
          };
          look();
        });
      });
      await element.click();
    };
    // What was found can be drawn anew before it is pressed: a person would press again.
    await press().catch((error: Error) => {
      if (!/detached/.test(error.message)) throw error;
      return press();
    });
  }

  /** Ticks a box, chip or radio; its input can be hidden behind a drawn one. */
  async ticks(name: string, role: 'checkbox' | 'radio' = 'checkbox'): Promise<void> {
    const box = await this.sees(name, role);
    await box.evaluate((node) => (node as HTMLElement).click());
  }

  /** Replaces the text of a field by typing. */
  async fills(label: string, value: string, role = 'textbox'): Promise<void> {
    const field = await this.sees(label, role);
    await field.click({ count: 3 });
    await this.page.keyboard.press('Backspace');
    await field.type(value);
  }

  /** Types a day into its field. */
  async dates(label: string, day: string): Promise<void> {
    await this.fills(label, day);
    await this.page.keyboard.press('Tab');
  }

  /** Opens a list by its label and takes an option. */
  async chooses(label: string, option: string): Promise<void> {
    const field = await this.page.waitForSelector(`::-p-aria([name="${label}"])`, { timeout: 15_000 });
    await field?.evaluate((node) => node.scrollIntoView({ block: 'center' }));
    await field?.click();
    const entry = await this.page.waitForSelector(`::-p-aria([name="${option}"][role="option"])`, {
      timeout: 10_000,
    });
    await entry?.click();
  }

  /** Types into a list that can be searched and takes the option of exactly that name. */
  async searches(label: string, option: string): Promise<void> {
    const field = await this.page.waitForSelector(`::-p-aria([name="${label}"])`, { timeout: 15_000 });
    await field?.click({ count: 3 });
    await field?.type(option);
    await this.presses(option, 'option');
  }

  /** The accessible name of the element that has the focus. */
  focused(): Promise<string> {
    return this.page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? '');
  }

  /** Types a value and presses Enter, wherever the focus is. */
  async calls(value: string): Promise<void> {
    await this.page.keyboard.type(value);
    const left = await this.page.evaluateHandle(() => document.activeElement);
    await this.page.keyboard.press('Enter');
    // The next field takes the focus a moment later; after the last one, or a refused value, nothing moves.
    await this.page
      .waitForFunction((field) => document.activeElement !== field, { timeout: 1500 }, left)
      .catch(() => undefined);
  }

  /** Tabs from where the focus is to the first field with a label. */
  async tabsTo(label: string, most = 120): Promise<void> {
    for (let i = 0; i < most; i += 1) {
      if ((await this.focused()) === label) return;
      await this.page.keyboard.press('Tab');
    }
    throw new Error(`"${label}" cannot be reached by Tab`);
  }

  /** Waits until something with an accessible name and role is gone. */
  async seesNoMore(name: string, role: string): Promise<void> {
    await this.page.waitForSelector(`::-p-aria([name="${name}"][role="${role}"])`, { hidden: true });
  }

  /** Goes to a step of the trail. */
  async walksTo(step: string): Promise<void> {
    await this.page.evaluate((name: string) => {
      const links = [...document.querySelectorAll<HTMLElement>('nav[aria-label="Trail"] a')];
      const link = links.find((a) => a.innerText.startsWith(name));
      if (!link) throw new Error(`no step ${name}`);
      link.click();
    }, step);
    await this.page.waitForFunction(
      (name: string) =>
        document
          .querySelector('nav[aria-label="Trail"] [aria-current="page"]')
          ?.textContent?.startsWith(name),
      {},
      step,
    );
  }

  /** Answers what is asked first with "holds", and starts the run. */
  async startsTheRun(): Promise<void> {
    await this.sees('Start', 'button');
    await this.page.$$eval('main [role="alert"] input[type="radio"][value="true"]', (nodes) => {
      for (const node of nodes) (node as HTMLElement).click();
    });
    await this.presses('Start');
    await this.sees('Runner', 'dialog');
  }

  /** Reads out topic after topic of the gate and answers each with none of its signs; how many those were. */
  async goesThroughTheGate(): Promise<number> {
    await this.page.waitForSelector('#gate-ask');
    for (let topics = 1; ; topics += 1) {
      const ask = await this.page.$eval('#gate-ask', (node) => node.textContent ?? '');
      const names = await this.page.$$eval('main button', (nodes) => nodes.map((n) => n.textContent ?? ''));
      await this.page.keyboard.press(names.some((name) => name.includes('Yes, all of it')) ? 'y' : 'n');
      await this.page.waitForFunction(
        (before: string) => document.querySelector('#gate-ask')?.textContent !== before,
        {},
        ask,
      );
      if (!(await this.page.$('#gate-ask'))) return topics;
    }
  }

  /** Says that nothing is new at this visit, where that is asked. */
  async hasNothingNew(): Promise<void> {
    await this.page.waitForSelector('#visit-title, [data-entry] [data-field]');
    if (!(await this.page.$('#visit-title'))) return;
    await this.page.keyboard.press('n');
    await this.page.waitForSelector('[data-entry] [data-field]');
  }

  /** Throws the routine being edited away. */
  async discards(): Promise<void> {
    await this.presses('Derive…');
    await this.presses('Discard', 'menuitem');
    await this.page.waitForFunction(() => !document.querySelector('[data-testid="total"]'));
  }

  /** Names of the drills of the routine being edited, in order. */
  drillNames(): Promise<string[]> {
    return this.page.$$eval('table[aria-label="Drills of the routine"] th button', (nodes) =>
      nodes.map((n) => (n.textContent ?? '').replace(/^\d+\. /, '')),
    );
  }

  /** Waits until the drills of the routine being edited differ from these; returns them. */
  async drillsOtherThan(before: readonly string[]): Promise<string[]> {
    await this.page.waitForFunction(
      (old: string) =>
        [...document.querySelectorAll('table[aria-label="Drills of the routine"] th button')]
          .map((n) => (n.textContent ?? '').replace(/^\d+\. /, ''))
          .join('|') !== old,
      { timeout: 30_000 },
      before.join('|'),
    );
    return this.drillNames();
  }

  /** Seconds of the routine being edited, read from the screen. */
  async totalSeconds(): Promise<number> {
    const text = await this.page.$eval('[data-testid="total"]', (node) => node.textContent ?? '');
    const [, minutes, seconds] = /(?:(\d+) min )?(\d+) s/.exec(text) ?? [];
    return Number(minutes ?? 0) * 60 + Number(seconds ?? 0);
  }
}
