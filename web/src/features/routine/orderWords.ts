import type { OrderCost } from '@yonder/core/builder';

const PARTS: readonly [keyof OrderCost, string, string][] = [
  ['positions', 'change of position', 'changes of position'],
  ['kit', 'change of kit', 'changes of kit'],
  ['loadedFirst', 'loaded drill before an easier one', 'loaded drills before easier ones'],
];

/** What an order costs, in words: "3 changes of position, 1 change of kit". */
export function costText(cost: OrderCost): string {
  const parts = PARTS.filter(([key]) => cost[key] > 0).map(
    ([key, one, many]) => `${cost[key]} ${cost[key] === 1 ? one : many}`,
  );
  return parts.length > 0 ? parts.join(', ') : 'no changes of position or kit';
}

/** What changed from one order to another: "1 change of position more, +10 s". */
export function costChange(before: OrderCost, after: OrderCost): string {
  const parts = PARTS.flatMap(([key, one, many]) => {
    const by = after[key] - before[key];
    if (by === 0) return [];
    const n = Math.abs(by);
    return [`${n} ${n === 1 ? one : many} ${by > 0 ? 'more' : 'less'}`];
  });
  const seconds = after.betweenSeconds - before.betweenSeconds;
  if (seconds !== 0) parts.push(`${seconds > 0 ? '+' : '−'}${Math.abs(seconds)} s`);
  return parts.length > 0 ? parts.join(', ') : 'costs nothing';
}
