import { openSidesOf } from '../builder/index.ts';
import { levelItem } from '../progress/index.ts';
import type { Check, Checked } from './types.ts';

/** A drill repeated at its level although tests and diary, or a placement, have opened the next one. */
export function checkLevels(checked: Checked): Check[] {
  const { prepared } = checked;
  const { routine } = prepared.standing;
  return checked.placed.flatMap(({ drill, item, index }): Check[] => {
    const next = drill.progressTo ? prepared.reference.drills.get(drill.progressTo) : undefined;
    const repeated = routine?.items.some((old) => old.drill === drill.id) ?? false;
    if (!next || !repeated || prepared.options.ineligible.has(next.id)) return [];
    const open = openSidesOf(prepared, next).find((o) => o.side === item.side || !next.unilateral);
    if (!open || (open.by !== 'criteria' && open.by !== 'placement')) return [];
    const raised = levelItem(prepared.dose, next, item);
    return [
      {
        level: 'note',
        reason: { rule: 'same-level-again', drill: drill.id, next: next.id, by: open.by },
        at: [index],
        repair: raised
          ? {
              does: { rule: 'repair-next-level', drill: drill.id, next: next.id },
              items: checked.items.map((own, i) => (i === index ? raised : own)),
            }
          : null,
      },
    ];
  });
}
