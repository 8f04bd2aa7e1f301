import { COVER_MATCH, coversRestriction } from '../reference/index.ts';
import { failureDistance, roundAmount, sideDoses } from '../dose/index.ts';
import type { RoutineItem } from '../domain/index.ts';
import type { Reason } from '../reasons/index.ts';
import type { Check, Checked, Placed } from './types.ts';

/** Up to so many sets are nobody's business, whatever the drill's own range. */
const EXTRA_SETS_FROM = 4;

/** The most of an amount that keeps every side as far from failure as the mode wants. */
function allowedAmount({ prepared }: Checked, { drill, item }: Placed): number {
  const { min, max } = drill.dose.amount;
  const { allowed, share } = failureDistance(prepared.dose, drill, item);
  if (allowed === null || share === null) return max;
  const amount = Math.max(...sideDoses(drill, item).map((dose) => dose.amount));
  const maximum = amount / share;
  return Math.min(max, Math.max(min, roundAmount(drill.dose.measure, maximum * allowed)));
}

function withAtMost(item: RoutineItem, most: number): RoutineItem {
  const { perSide } = item;
  const cut = ({ sets, amount }: { sets: number; amount: number }) => ({
    sets,
    amount: Math.min(amount, most),
  });
  return {
    ...item,
    amount: Math.min(item.amount, most),
    ...(perSide ? { perSide: { left: cut(perSide.left), right: cut(perSide.right) } } : {}),
  };
}

/** Sets nearer to failure than the mode allows. */
export function checkFailure(checked: Checked): Check[] {
  return checked.placed.flatMap((placed): Check[] => {
    const { drill, item, index } = placed;
    const distance = failureDistance(checked.prepared.dose, drill, item);
    if (!distance.tooClose) return [];
    const amount = allowedAmount(checked, placed);
    const { share, allowed, test } = distance;
    const reason: Reason =
      share === null || test === null
        ? { rule: 'beyond-range', drill: drill.id, most: drill.dose.amount.max }
        : { rule: 'too-close-to-failure', drill: drill.id, share, allowed, test };
    return [
      {
        level: 'warn',
        reason,
        at: [index],
        repair: {
          does: { rule: 'repair-lower', drill: drill.id, amount },
          items: checked.items.map((own, i) => (i === index ? withAtMost(item, amount) : own)),
        },
      },
    ];
  });
}

/** More sets than the drill is meant for. */
export function checkSets(checked: Checked): Check[] {
  return checked.placed.flatMap(({ drill, item, index }): Check[] => {
    const most = Math.max(drill.dose.sets.max, EXTRA_SETS_FROM);
    const sets = Math.max(...sideDoses(drill, item).map((dose) => dose.sets));
    if (sets <= most) return [];
    const cut = (dose: { sets: number; amount: number }) => ({ ...dose, sets: Math.min(dose.sets, most) });
    const { perSide } = item;
    const fewer: RoutineItem = {
      ...item,
      sets: Math.min(item.sets, most),
      ...(perSide ? { perSide: { left: cut(perSide.left), right: cut(perSide.right) } } : {}),
    };
    return [
      {
        level: 'warn',
        reason: { rule: 'too-many-sets', drill: drill.id, sets, most },
        at: [index],
        repair: {
          does: { rule: 'repair-fewer-sets', drill: drill.id, sets: most },
          items: checked.items.map((own, i) => (i === index ? fewer : own)),
        },
      },
    ];
  });
}

/** The side with the heavier restriction is served at least as much as the other. */
export function checkWeakSide(checked: Checked): Check[] {
  const { weights } = checked.prepared;
  return checked.placed.flatMap(({ drill, item, index }): Check[] => {
    if (!drill.unilateral) return [];
    const asked = { left: 0, right: 0 };
    for (const { restriction, side, weight } of weights) {
      const match = drill.serves.find((s) => s.restriction === restriction)?.match ?? 0;
      if (side !== 'central' && match >= COVER_MATCH) asked[side] += weight * match;
    }
    const weak = asked.left > asked.right ? 'left' : 'right';
    if (asked[weak] <= asked[weak === 'left' ? 'right' : 'left']) return [];
    const given = { left: 0, right: 0 };
    for (const { side, sets, amount } of sideDoses(drill, item))
      if (side === 'left' || side === 'right') given[side] += sets * amount;
    const other = weak === 'left' ? 'right' : 'left';
    if (given[weak] >= given[other]) return [];
    // Other items may give the weak side its due.
    const elsewhere = checked.placed.some(
      (p) =>
        p.index !== index &&
        (p.item.side === weak || p.item.side === 'both') &&
        p.drill.serves.some((s) => s.match >= COVER_MATCH && coversRestriction(drill, s.restriction)),
    );
    if (given[weak] === 0 && elsewhere) return [];
    const { perSide: _uneven, ...even } = item;
    return [
      {
        level: 'warn',
        reason: { rule: 'weak-side-forgotten', drill: drill.id, side: weak },
        at: [index],
        repair: {
          does: { rule: 'repair-weak-side', drill: drill.id, side: weak },
          items: checked.items.map((own, i) =>
            i === index ? { ...even, side: asked[other] > 0 || item.side === 'both' ? 'both' : weak } : own,
          ),
        },
      },
    ];
  });
}
