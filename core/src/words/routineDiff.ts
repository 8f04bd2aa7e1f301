import type { RoutineItem } from '../domain/index.ts';
import type { Reference } from '../reference/index.ts';
import { amountText } from './doseText.ts';
import { nameOf } from './figures.ts';
import { SIDE_LABEL } from './labels.ts';

function sideWord(item: RoutineItem): string {
  return item.side === 'left' || item.side === 'right' ? ` ${SIDE_LABEL[item.side]}` : '';
}

function setupChanges(reference: Reference, before: RoutineItem, after: RoutineItem): string[] {
  const drill = reference.drills.get(after.drill);
  return (drill?.setupVariables ?? []).flatMap((variable) => {
    const from = before.setup[variable.id] ?? variable.default;
    const to = after.setup[variable.id] ?? variable.default;
    if (from === to) return [];
    const unit = variable.unit ? ` ${variable.unit}` : '';
    return [`${variable.name.toLowerCase()} ${from} → ${to}${unit}`];
  });
}

/** What changed in one item, without its name: "2 × 8 → 2 × 10; foot distance 6 → 8 cm". Empty when nothing did. */
export function itemChange(reference: Reference, before: RoutineItem, after: RoutineItem): string {
  if (before.drill !== after.drill) return `→ ${nameOf(reference, after.drill)}, ${amountText(after)}`;
  const parts: string[] = [];
  if (amountText(before) !== amountText(after)) parts.push(`${amountText(before)} → ${amountText(after)}`);
  if (before.side !== after.side) parts.push(`${SIDE_LABEL[before.side]} → ${SIDE_LABEL[after.side]}`);
  if (before.restSeconds !== after.restSeconds)
    parts.push(`rest ${before.restSeconds} → ${after.restSeconds} s`);
  parts.push(...setupChanges(reference, before, after));
  return parts.join('; ');
}

/** What changed from one version to the next, a sentence a drill; a move along a ladder is said as such. */
export function routineChanges(
  reference: Reference,
  before: readonly RoutineItem[],
  after: readonly RoutineItem[],
): string[] {
  const sentences: string[] = [];
  const ladderOf = (id: string) => reference.drills.get(id)?.ladder ?? id;
  const gone = before.filter((old) => !after.some((item) => item.drill === old.drill));
  const replaced = new Set<string>();
  for (const item of after) {
    const same = before.find((old) => old.drill === item.drill);
    if (same) {
      const change = itemChange(reference, same, item);
      if (change) sentences.push(`${nameOf(reference, item.drill)}${sideWord(item)}: ${change}`);
      continue;
    }
    const moved = gone.find((old) => ladderOf(old.drill) === ladderOf(item.drill));
    const name = `${nameOf(reference, item.drill)}${sideWord(item)}, ${amountText(item)}`;
    if (moved) {
      replaced.add(moved.drill);
      sentences.push(`${nameOf(reference, moved.drill)} → ${name}`);
    } else sentences.push(`Added: ${name}`);
  }
  for (const old of gone) {
    if (!replaced.has(old.drill)) sentences.push(`Removed: ${nameOf(reference, old.drill)}${sideWord(old)}`);
  }
  const order = (items: readonly RoutineItem[], other: readonly RoutineItem[]) =>
    items
      .filter((i) => other.some((o) => o.drill === i.drill))
      .map((i) => i.drill)
      .join();
  if (order(before, after) !== order(after, before)) sentences.push('Order changed');
  return sentences;
}
