import { openSidesOf } from '../builder/index.ts';
import { tooHard } from '../levels/index.ts';
import { levelItem } from '../progress/index.ts';
import { swapOrRemove } from './allowed.ts';
import type { Check, Checked, Repair } from './types.ts';

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

/** A drill that a practitioner saw as too hard for the athlete; the level below it takes its place. */
export function checkTooHard(checked: Checked): Check[] {
  const { prepared } = checked;
  return checked.placed.flatMap(({ drill, item, index }): Check[] => {
    const said = tooHard(prepared.rules, drill, item.side);
    if (!said) return [];
    const below = drill.easeTo ? prepared.reference.drills.get(drill.easeTo) : undefined;
    const taken = checked.items.some((other) => other.drill === below?.id);
    const easier =
      below &&
      !taken &&
      !prepared.options.ineligible.has(below.id) &&
      !tooHard(prepared.rules, below, item.side)
        ? levelItem(prepared.dose, below, item)
        : null;
    const repair: Repair = easier
      ? {
          does: { rule: 'repair-easier-level', drill: drill.id, easier: easier.drill },
          items: checked.items.map((own, i) => (i === index ? easier : own)),
        }
      : swapOrRemove(checked, index);
    return [
      {
        level: 'warn',
        reason: { rule: 'too-hard', drill: drill.id, by: said.by, date: said.date },
        at: [index],
        repair,
      },
    ];
  });
}
