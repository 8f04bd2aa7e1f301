import { afterAll, afterEach } from 'vitest';
import { Clinician } from './Clinician.ts';
import { keepPicture } from './keepPicture.ts';
import { openPage } from './openPage.ts';
import { product } from './product.ts';
import { stored } from './stored.ts';

/**
 * A clinician of the demo academy, signed in at a fresh browser for one test file, with the athletes by name. After a
 * failed test the page is kept as a picture; the browser is closed at the end.
 */
export async function atTheDesk(options: Parameters<typeof openPage>[0] = {}) {
  const rows = await stored<{ id: string; name: string }>('SELECT id, name FROM athletes');
  const ids = new Map(rows.map((row) => [row.name, row.id]));
  const open = await openPage(options);
  const clinician = new Clinician(open.page, product.base);
  afterEach(({ task }) => keepPicture(open.page, task));
  afterAll(() => open.close());
  await clinician.signsIn();
  const visit = (name: string, step: string) => clinician.opens(`/athletes/${ids.get(name)}/${step}`);
  return { open, clinician, ids, visit };
}
