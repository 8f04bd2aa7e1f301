import { COVER_MATCH, coversRestriction } from '../reference/index.ts';
import type { Drill } from '../reference/index.ts';
import { isPreparing, orderCost, orderedItems } from '../builder/index.ts';
import { routineSeconds } from '../dose/index.ts';
import { placedOf } from './placed.ts';
import type { Check, Checked, Placed, Repair } from './types.ts';

const WORKS: ReadonlySet<string> = new Set(['activate', 'stabilise', 'strengthen']);

/** Two drills that work the same region's muscles for the same restriction. */
function sameTissue(a: Placed, b: Placed): boolean {
  const region = a.drill.regions.primary[0];
  return (
    Math.abs(a.index - b.index) === 1 &&
    WORKS.has(a.drill.category) &&
    WORKS.has(b.drill.category) &&
    a.drill.category === b.drill.category &&
    region !== undefined &&
    region === b.drill.regions.primary[0] &&
    (a.item.side === b.item.side || a.item.side === 'both' || b.item.side === 'both') &&
    a.drill.serves.some((x) => x.match >= COVER_MATCH && coversRestriction(b.drill, x.restriction))
  );
}

function samePairs(placed: readonly Placed[]): number {
  return placed.filter((p, i) => i > 0 && sameTissue(placed[i - 1] ?? p, p)).length;
}

/** The nearest move inside its phase that parts two neighbours without another such pair. */
function apart(checked: Checked, index: number): Repair | null {
  const item = checked.items[index];
  if (!item || item.circuit) return null;
  const now = samePairs(checked.placed);
  const moves = checked.items
    .map((other, to) => ({ to, same: other.phase === item.phase }))
    .filter(({ to, same }) => same && to !== index)
    .map(({ to }) => checked.items.filter((_, i) => i !== index).toSpliced(to, 0, item))
    .filter((items) => samePairs(placedOf(checked.prepared.reference, items)) < now)
    .sort(
      (a, b) =>
        orderCost(checked.prepared.reference, a).total - orderCost(checked.prepared.reference, b).total,
    );
  const [best] = moves;
  return best ? { does: { rule: 'repair-reorder', drill: item.drill }, items: best } : null;
}

/** The same tissue worked twice in a row. */
export function checkNeighbours(checked: Checked): Check[] {
  return checked.placed.flatMap((placed, i): Check[] => {
    const before = checked.placed[i - 1];
    if (!before || !sameTissue(before, placed)) return [];
    const repair = apart(checked, placed.index) ?? apart(checked, before.index);
    return [
      {
        level: 'note',
        reason: { rule: 'same-tissue-twice', drill: placed.drill.id, before: before.drill.id },
        at: [before.index, placed.index],
        repair,
      },
    ];
  });
}

/** Phases in their order: a drill of a later phase never stands before one of an earlier phase. */
export function checkPhases(checked: Checked): Check[] {
  const { phases } = checked.prepared.chosen;
  const place = (phase: string | null) => phases.findIndex((p) => p.id === phase);
  const early = checked.items.findIndex((item, i) => {
    const next = checked.items[i + 1];
    return next !== undefined && place(item.phase) > place(next.phase) && place(next.phase) >= 0;
  });
  if (early < 0) return [];
  const items = orderedItems(checked.prepared, checked.items);
  return [
    {
      level: 'warn',
      reason: {
        rule: 'phase-order',
        drill: checked.items[early]?.drill ?? '',
        phase: phases[place(checked.items[early + 1]?.phase ?? null)]?.name ?? '',
      },
      at: [early, early + 1],
      repair: {
        does: { rule: 'repair-order', seconds: routineSeconds(checked.prepared.reference, items) },
        items,
      },
    },
  ];
}

/** One rung that prepares may stand beside one that works; in a build two that work. Never three, never the same twice. */
function standTogether(
  { reference, request }: Checked['prepared'],
  before: readonly { readonly drill: Drill }[],
  drill: Drill,
): boolean {
  const [other, ...more] = before;
  if (!other || more.length > 0 || other.drill.id === drill.id) return false;
  return request.mode === 'build' || isPreparing(reference, other.drill) !== isPreparing(reference, drill);
}

/** One drill of a ladder. */
export function checkLadders(checked: Checked): Check[] {
  return checked.placed.flatMap(({ drill, index }): Check[] => {
    const before = checked.placed.filter(
      (other) => other.index < index && other.drill.ladder === drill.ladder,
    );
    const first = before.find((other) => other.drill.id === drill.id) ?? before[0];
    if (!first || standTogether(checked.prepared, before, drill)) return [];
    const lower = first.drill.level < drill.level ? first.index : index;
    return [
      {
        level: 'warn',
        reason:
          first.drill.id === drill.id
            ? { rule: 'drill-repeated', drill: drill.id }
            : { rule: 'two-of-one-ladder', drill: drill.id, other: first.drill.id, ladder: drill.ladder },
        at: [first.index, index],
        repair: {
          does: { rule: 'repair-remove', drill: checked.items[lower]?.drill ?? '' },
          items: checked.items.filter((_, i) => i !== lower),
        },
      },
    ];
  });
}
