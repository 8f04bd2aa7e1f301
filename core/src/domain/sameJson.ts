/** Keys in one order, so that two writings of the same value are one. */
const sorted = (_key: string, value: unknown): unknown =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
    ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
    : value;

/** Do two values say the same once they are stored as JSON? The order of keys and keys without a value do not count. */
export function sameJson(a: unknown, b: unknown): boolean {
  return JSON.stringify(a ?? null, sorted) === JSON.stringify(b ?? null, sorted);
}
