import type { Page, PageQuery } from '@yonder/core/contracts';
import { ApiProblem } from './problem.ts';

/** Cuts a list that was read one longer than asked into a page; `keyOf` says where the next one begins. */
export function pageOfRows<Row, Item>(
  rows: readonly Row[],
  { limit }: Pick<PageQuery, 'limit'>,
  keyOf: (row: Row) => readonly string[],
  show: (row: Row) => Item,
): Page<Item> {
  const shown = rows.slice(0, limit);
  const last = shown.at(-1);
  const more = rows.length > limit && last !== undefined;
  return {
    items: shown.map(show),
    next: more ? Buffer.from(JSON.stringify(keyOf(last))).toString('base64url') : null,
  };
}

/** Where a page goes on, as `keyOf` said; null at the beginning. 400 for something else than a `next` of this list. */
export function cursorOf({ after }: Pick<PageQuery, 'after'>, parts: number): string[] | null {
  if (after === undefined) return null;
  const refused = new ApiProblem('invalid-request', {
    errors: [{ path: '$.after', message: 'is not the `next` of a page' }],
  });
  let key: unknown;
  try {
    key = JSON.parse(Buffer.from(after, 'base64url').toString('utf8'));
  } catch {
    throw refused;
  }
  const sound =
    Array.isArray(key) &&
    key.length === parts &&
    key.every((part) => typeof part === 'string' && part.length <= 200 && !part.includes('\u0000'));
  if (!sound) throw refused;
  return key as string[];
}
