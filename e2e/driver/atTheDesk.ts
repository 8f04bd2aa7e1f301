import { afterAll, afterEach, inject } from 'vitest';
import { Clinician } from './Clinician.ts';
import { keepPicture } from './keepPicture.ts';
import { openPage } from './openPage.ts';
import type { OpenPage, PageOptions } from './openPage.ts';
import { ownPractice } from './practice.ts';
import type { Practice } from './practice.ts';
import { copiedDatabase, startProduct } from './product.ts';

/** A desk in a practice of its own, with a browser window open and nobody signed in yet. */
export interface Desk extends Practice {
  readonly base: string;
  readonly open: OpenPage;
  readonly clinician: Clinician;
  /** Athletes of the practice by name. */
  readonly ids: ReadonlyMap<string, string>;
  /** Opens a step of an athlete's trail. */
  readonly visit: (name: string, step: string) => Promise<void>;
}

async function deskAt(base: string, databaseUrl: string, options: PageOptions): Promise<Desk> {
  const practice = await ownPractice(databaseUrl);
  afterAll(practice.leave);
  const rows = await practice.stored<{ id: string; name: string }>('SELECT id, name FROM athletes');
  const ids = new Map(rows.map((row) => [row.name, row.id]));
  const open = await openPage(options);
  afterAll(() => open.close());
  afterEach(({ task }) => keepPicture(open.page, task));
  const clinician = new Clinician(open.page, base, practice.account);
  const visit = (name: string, step: string) => clinician.opens(`/athletes/${ids.get(name)}/${step}`);
  return { ...practice, base, open, clinician, ids, visit };
}

/** A clinician of a demo academy that no other file knows, in front of a window of its own. */
export function atTheDoor(options: PageOptions = {}): Promise<Desk> {
  const { base, databaseUrl } = inject('product');
  return deskAt(base, databaseUrl, options);
}

/** The same, signed in. After a failed test the page is kept as a picture. */
export async function atTheDesk(options: PageOptions = {}): Promise<Desk> {
  const desk = await atTheDoor(options);
  await desk.clinician.signsIn();
  return desk;
}

/** Signed in at a product that nobody shares: it may be restarted. */
export async function atADeskApart(options: PageOptions = {}) {
  const laid = inject('laid');
  const { url, drop } = await copiedDatabase(laid);
  afterAll(drop);
  const product = await startProduct({ ...laid, DATABASE_URL: url });
  afterAll(product.stop);
  const desk = await deskAt(product.base, url, options);
  await desk.clinician.signsIn();
  return { ...desk, restart: product.restart };
}
