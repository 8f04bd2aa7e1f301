import equal from 'fast-deep-equal';

/** Do two values say the same once they are stored as JSON? The order of keys and keys without a value do not count. */
export function sameJson(a: unknown, b: unknown): boolean {
  const stored = (value: unknown): unknown => JSON.parse(JSON.stringify(value ?? null));
  return equal(stored(a), stored(b));
}
