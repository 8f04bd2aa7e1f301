/** The members of a list that a test looks at one by one. Throws when there are none: such a test would check nothing. */
export function eachOf<T>(list: Iterable<T>): T[] {
  const all = [...list];
  if (all.length === 0) throw new Error('there is nothing here to look at');
  return all;
}
