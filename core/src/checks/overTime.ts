import type { RoutineItem } from '../domain/index.ts';
import { explainItems } from '../builder/index.ts';
import { routineSeconds } from '../dose/index.ts';
import type { Check, Checked } from './types.ts';

/** What an item does for the weighted restrictions, for choosing what to cut. */
function worths({ prepared, items }: Checked): number[] {
  return explainItems(prepared, items).map((explained) =>
    explained.serves.reduce((sum, { restriction, side, match }) => {
      const weighted = prepared.weights.find((w) => w.restriction === restriction && w.side === side);
      return sum + (weighted?.weight ?? 0) * match;
    }, 0),
  );
}

/** Fits a routine into seconds: a set less where it is worth least, then the least useful drill out; pins stay. */
function cutTo(checked: Checked, seconds: number): RoutineItem[] | null {
  const { reference, request } = checked.prepared;
  const worth = worths(checked);
  let kept = checked.items.map((item, i) => ({ item, worth: worth[i] ?? 0 }));
  const total = () =>
    routineSeconds(
      reference,
      kept.map((k) => k.item),
    );
  const leastFirst = () => [...kept].sort((a, b) => a.worth - b.worth);
  while (total() > seconds) {
    const fewer = leastFirst().find(({ item }) => item.sets > 1 || item.perSide);
    if (fewer) {
      const { perSide, ...item } = fewer.item;
      const sets = perSide ? item.sets : item.sets - 1;
      kept = kept.map((k) => (k === fewer ? { ...k, item: { ...item, sets: Math.max(1, sets) } } : k));
      continue;
    }
    const gone = leastFirst().find(({ item }) => !request.pins.includes(item.drill));
    if (!gone || kept.length === 1) return null;
    kept = kept.filter((k) => k !== gone);
  }
  return kept.map((k) => k.item);
}

/** Longer than the minutes there are. */
export function checkTime(checked: Checked): Check[] {
  const seconds = Math.floor(checked.prepared.chosen.minutes * 60);
  const over = checked.time.total - seconds;
  if (over <= 0) return [];
  const items = cutTo(checked, seconds);
  return [
    {
      level: 'warn',
      reason: { rule: 'over-time', over, minutes: checked.prepared.chosen.minutes },
      at: [],
      repair: items
        ? { does: { rule: 'repair-cut', drills: checked.items.length - items.length }, items }
        : null,
    },
  ];
}
