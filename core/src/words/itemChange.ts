import type { RoutineItem } from '../domain/index.ts';
import type { Reference } from '../reference/index.ts';
import { amountText, circuitText, lineName, setsText } from './doseText.ts';
import { nameOf } from './figures.ts';
import { SIDE_LABEL } from './labels.ts';

/** "Knee-to-wall rock left"; without a side for drills done on both. */
export function itemName(reference: Reference, item: Pick<RoutineItem, 'drill' | 'side' | 'words'>): string {
  const side = item.side === 'left' || item.side === 'right' ? ` ${SIDE_LABEL[item.side]}` : '';
  return `${lineName(reference, item)}${side}`;
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

/** Sets and amount of one side as an item prescribes it; null when that side is not done. */
function sideDose(item: RoutineItem, side: 'left' | 'right'): { sets: number; amount: number } | null {
  if (item.side === 'left' || item.side === 'right') return item.side === side ? item : null;
  return item.perSide?.[side] ?? item;
}

/** "20 s → 25 s left, right unchanged": each side by itself, where the two differ in what changed. */
function sidesChange(before: RoutineItem, after: RoutineItem): string {
  const parts = (['left', 'right'] as const).map((side) => {
    const was = sideDose(before, side);
    const is = sideDose(after, side);
    const text = (dose: { sets: number; amount: number } | null) =>
      dose ? setsText(after.measure, dose) : 'not done';
    return { side, same: text(was) === text(is), text: `${text(was)} → ${text(is)} ${side}` };
  });
  const changed = parts.filter((part) => !part.same);
  if (changed.length === 0) return '';
  const unchanged = parts.filter((part) => part.same).map((part) => `${part.side} unchanged`);
  return [...changed.map((part) => part.text), ...unchanged].join(', ');
}

function doseChange(before: RoutineItem, after: RoutineItem): string[] {
  const uneven = before.perSide ?? after.perSide;
  const switched = before.side !== after.side;
  const sided = (item: RoutineItem) => item.side === 'left' || item.side === 'right' || item.side === 'both';
  if (uneven || (switched && sided(before) && sided(after))) {
    const change = sidesChange(before, after);
    const plain = (item: RoutineItem) => amountText({ ...item, perSide: undefined, sets: 1, amount: 1 });
    const hold = plain(before) === plain(after) ? [] : [`${plain(before)} → ${plain(after)}`];
    return [...(change ? [change] : []), ...hold];
  }
  const dose =
    amountText(before) === amountText(after) ? [] : [`${amountText(before)} → ${amountText(after)}`];
  return [...dose, ...(switched ? [`${SIDE_LABEL[before.side]} → ${SIDE_LABEL[after.side]}`] : [])];
}

/** What changed in one item, without its name: "2 × 8 → 2 × 10; foot distance 6 → 8 cm". Empty when nothing did. */
export function itemChange(reference: Reference, before: RoutineItem, after: RoutineItem): string {
  if (before.drill !== after.drill) return `→ ${nameOf(reference, after.drill)}, ${amountText(after)}`;
  const parts = doseChange(before, after);
  if (before.restSeconds !== after.restSeconds)
    parts.push(`rest ${before.restSeconds} → ${after.restSeconds} s`);
  if ((before.tempo ?? '') !== (after.tempo ?? ''))
    parts.push(`tempo ${before.tempo ?? 'as usual'} → ${after.tempo ?? 'as usual'}`);
  const rounds = (item: RoutineItem) => (item.circuit ? circuitText(item.circuit) : 'once');
  if (rounds(before) !== rounds(after)) parts.push(`rounds: ${rounds(before)} → ${rounds(after)}`);
  const said = [
    ['grip', before.grip, after.grip],
    ['a minute', before.cadence, after.cadence],
    ['words', before.words, after.words],
    ['led by', before.ledBy, after.ledBy],
    ['note', before.note, after.note],
  ] as const;
  for (const [what, was, is] of said)
    if (was !== is) parts.push(`${what}: ${was ?? 'none'} → ${is ?? 'none'}`);
  parts.push(...setupChanges(reference, before, after));
  return parts.join('; ');
}
