import type { ElementHandle, Page } from 'puppeteer-core';
import { press } from './press.ts';

/** A clinician at the keyboard: finds things by role and label, as a person or a screen reader would. */
export class Clinician {
  readonly page: Page;
  private readonly base: string;
  private readonly account: { readonly email: string; readonly password: string };

  constructor(page: Page, base: string, account: Clinician['account']) {
    this.page = page;
    this.base = base;
    this.account = account;
  }

  /** The same person at another tab of the same window. */
  async opensATab(): Promise<Clinician> {
    return new Clinician(await this.page.browserContext().newPage(), this.base, this.account);
  }

  /** Opens a path: within the application where it stands open, as a link does; loaded anew otherwise. */
  async opens(path: string): Promise<void> {
    const within = await this.page.evaluate((to: string) => {
      const { state } = history as { state: { idx?: number } | null };
      if (!document.querySelector('main#main') || state?.idx === undefined || /^https?:/.test(to))
        return false;
      history.pushState({ usr: null, key: Math.random().toString(36).slice(2), idx: state.idx + 1 }, '', to);
      dispatchEvent(new PopStateEvent('popstate', { state: history.state }));
      return true;
    }, path);
    if (!within) return this.loads(path);
    await this.isShown();
  }

  /** Loads a path anew, as from the address bar, and waits until the page shows what it has to show. */
  async loads(path: string): Promise<void> {
    await this.page.goto(new URL(path, this.base).href, { waitUntil: 'domcontentloaded' });
    await this.isShown();
  }

  /** Loads the page anew. */
  async reloads(): Promise<void> {
    await this.page.reload({ waitUntil: 'domcontentloaded' });
    await this.isShown();
  }

  /** Waits until nothing of the page is still asked for, and it is drawn. */
  async isShown(): Promise<void> {
    await this.page.waitForFunction(
      () =>
        new Promise<boolean>((answer) => {
          const ready = () => {
            const main = document.querySelector('main');
            const place = main?.dataset.place ?? location.pathname; // the door has none
            const waits = document.querySelector('main[aria-busy="true"], [aria-label="Loading"]');
            return Boolean(main?.innerText.trim()) && place === location.pathname && !waits;
          };
          if (!ready()) answer(false);
          else requestAnimationFrame(() => requestAnimationFrame(() => answer(ready())));
        }),
    );
  }

  async signsIn(): Promise<void> {
    await this.opens('/sign-in');
    await this.givesCredentials();
    await this.sees('Add athlete', 'link');
    await this.isShown();
  }

  /** Fills in the door that is open, with the right password unless told another. */
  async givesCredentials(password = this.account.password): Promise<void> {
    await this.fills('E-mail', this.account.email);
    await this.fills('Password', password);
    await this.presses('Sign in');
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

  /** Waits until the page's text contains something no more. */
  async readsNoMore(text: string): Promise<void> {
    await this.page.waitForFunction((gone: string) => !document.body.innerText.includes(gone), {}, text);
  }

  /** Presses something by its accessible name, once it can be pressed. */
  presses(name: string, role = 'button'): Promise<void> {
    return press(() => this.sees(name, role));
  }

  /** Presses the first button whose name begins so, once it can be pressed; returns its whole name. */
  async pressesLike(start: string, within = 'body'): Promise<string> {
    const handle = await this.page.waitForFunction(
      (scope: string, wanted: string) =>
        [...document.querySelectorAll<HTMLButtonElement>(`${scope} button`)]
          .filter((node) => !node.disabled)
          .map((node) => node.getAttribute('aria-label') ?? node.innerText)
          .find((name) => name.startsWith(wanted)),
      {},
      within,
      start,
    );
    const name = (await handle.jsonValue()) as string;
    await this.presses(name);
    return name;
  }

  /** Ticks a box, chip or radio; its input can be hidden behind a drawn one. */
  async ticks(name: string, role: 'checkbox' | 'radio' = 'checkbox'): Promise<void> {
    const box = await this.sees(name, role);
    await box.evaluate((node) => (node as HTMLElement).click());
  }

  private async empties(label: string, role: string): Promise<void> {
    const field = await this.sees(label, role);
    await field.click({ count: 3 });
    await this.page.keyboard.press('Backspace');
  }

  /** Replaces the text of a field at once, as from the clipboard. */
  async fills(label: string, value: string, role = 'textbox'): Promise<void> {
    await this.empties(label, role);
    await this.page.keyboard.sendCharacter(value);
  }

  /** Replaces the text of a field key by key. */
  async types(label: string, value: string): Promise<void> {
    await this.empties(label, 'textbox');
    await this.page.keyboard.type(value);
  }

  /** Types a day into its field. */
  async dates(label: string, day: string): Promise<void> {
    await this.fills(label, day);
    await this.page.keyboard.press('Tab');
  }

  /** Something with an accessible name, whatever it is. */
  private async named(label: string): Promise<ElementHandle> {
    const field = await this.page.waitForSelector(`::-p-aria([name="${label}"])`, { timeout: 15_000 });
    if (!field) throw new Error(`nothing is named "${label}"`);
    return field;
  }

  /** Opens a list by its label and takes an option. */
  async chooses(label: string, option: string): Promise<void> {
    await press(() => this.named(label));
    await this.presses(option, 'option');
  }

  /** Types into a list that can be searched and takes the option of exactly that name. */
  async searches(label: string, option: string): Promise<void> {
    await (await this.named(label)).click({ count: 3 });
    await this.page.keyboard.sendCharacter(option);
    await this.presses(option, 'option');
  }

  /** The accessible name of the element that has the focus. */
  focused(): Promise<string> {
    return this.page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? '');
  }

  /** Types a value and presses Enter, wherever the focus is; the next field takes the focus. */
  async calls(value: string): Promise<void> {
    const left = await this.page.evaluateHandle(() => document.activeElement);
    await this.callsAndStays(value);
    await this.page.waitForFunction(
      (field) => document.activeElement !== field && document.activeElement !== document.body,
      { timeout: 10_000 },
      left,
    );
  }

  /** Types a value that is refused, or into the last field, and presses Enter. */
  async callsAndStays(value: string): Promise<void> {
    await this.page.keyboard.type(value);
    await this.page.keyboard.press('Enter');
  }

  /** Tabs from where the focus is to the first field with a label. */
  async tabsTo(label: string, most = 120): Promise<void> {
    for (let i = 0; i < most; i += 1) {
      if ((await this.focused()) === label) return;
      await this.page.keyboard.press('Tab');
    }
    throw new Error(`"${label}" cannot be reached by Tab`);
  }

  /** Presses a key and waits until what is said aloud to a screen reader answers it. */
  async hears(answer: string, key: 'Space' | 'ArrowDown' | 'ArrowUp'): Promise<void> {
    await this.page.keyboard.press(key);
    await this.page.waitForFunction(
      (wanted: string) =>
        [...document.querySelectorAll('[aria-live]')].some((node) => node.textContent === wanted),
      {},
      answer,
    );
  }

  /** Waits until something with an accessible name and role is gone. */
  async seesNoMore(name: string, role: string): Promise<void> {
    await this.page.waitForSelector(`::-p-aria([name="${name}"][role="${role}"])`, { hidden: true });
  }

  /** Turns to a step of the trail, whatever stands in the way. */
  async turnsTo(step: string): Promise<void> {
    await this.page.waitForFunction(
      (name: string) => {
        const links = [...document.querySelectorAll<HTMLElement>('nav[aria-label="Trail"] a')];
        const link = links.find((a) => a.innerText.startsWith(name));
        link?.click();
        return link !== undefined;
      },
      {},
      step,
    );
  }

  /** Goes to a step of the trail. */
  async walksTo(step: string): Promise<void> {
    await this.turnsTo(step);
    await this.page.waitForFunction(
      (name: string) =>
        document
          .querySelector('nav[aria-label="Trail"] [aria-current="page"]')
          ?.textContent?.startsWith(name),
      {},
      step,
    );
    await this.isShown();
  }

  /** Answers what is asked first with "holds", and starts the run. */
  async startsTheRun(): Promise<void> {
    await this.sees('Start', 'button');
    // What is asked comes with what is known of the drills: it is answered until the run may start.
    await this.page.waitForFunction(() => {
      for (const node of document.querySelectorAll<HTMLInputElement>(
        'main [role="alert"] input[type="radio"][value="true"]',
      ))
        if (!node.checked) node.click();
      return [...document.querySelectorAll('button')].some((b) => b.innerText === 'Start' && !b.disabled);
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
    const button = await this.page.waitForSelector('main button::-p-text(No, nothing new)');
    await button?.click();
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
