/** A stable id of something of a practice's own, made once from its name. */
export function slugOf(name: string, taken: ReadonlySet<string>, fallback: string): string {
  const word = name
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-+|-+$/g, '');
  const base = `own-${word || fallback}`.slice(0, 70);
  for (let n = 1; ; n += 1) {
    const slug = n === 1 ? base : `${base}-${n}`;
    if (!taken.has(slug)) return slug;
  }
}
