import type { Drill } from '../reference/index.ts';

/** The drill whose figure stands for a drill: of a practice's own without a picture, the one that it was copied from, up to one that has or ships with one. */
export function shownBy(drills: ReadonlyMap<string, Drill>, drill: Drill): Drill {
  const seen = new Set<string>();
  let shown = drill;
  while (!shown.picture && shown.from && !seen.has(shown.id)) {
    seen.add(shown.id);
    shown = drills.get(shown.from) ?? { ...shown, from: undefined };
  }
  return shown;
}
