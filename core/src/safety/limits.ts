import type { RoutineItem } from '../domain/index.ts';
import type { Drill, HandlingLimits, Reference, SetupVariable } from '../reference/index.ts';
import type { ActivePrecaution } from './active.ts';

/** What of an item an active precaution rules out although its drill may be done: a step of a set-up, or how long it is held. */
export interface BeyondLimit {
  readonly precaution: string;
  /** The set-up variable; null for the hold. */
  readonly variable: string | null;
  /** The step or the seconds it may go to. */
  readonly most: string | number;
}

/** A limit that a precaution sets on a drill today. */
interface Limit {
  readonly precaution: string;
  readonly limits: HandlingLimits;
}

/** What an item is judged by here; what is unknown is not judged. */
type Limited = Partial<Pick<RoutineItem, 'setup' | 'amount' | 'holdSeconds' | 'perSide'>>;

/** Limits of the precautions that a drill carries, the drill's own softening in place of the general one. */
function limitsOn(reference: Reference, drill: Drill, active: readonly ActivePrecaution[]): Limit[] {
  return active.flatMap(({ id }): Limit[] => {
    const own = drill.precautionOverrides.find((o) => o.precaution === id)?.limits;
    const general = drill.contraindications.includes(id) ? reference.precautions.get(id)?.limits : undefined;
    const limits = own ?? general;
    return limits ? [{ precaution: id, limits }] : [];
  });
}

/** How far a variable may go: its steps run from easier to harder, whichever way their numbers do. */
function stepsUpTo(variable: SetupVariable, atMost: string | number): readonly (string | number)[] {
  const { steps } = variable;
  if (typeof atMost === 'string') {
    const at = steps.indexOf(atMost);
    return at < 0 ? steps : steps.slice(0, at + 1);
  }
  const falling = Number(steps.at(-1)) < Number(steps[0]);
  return steps.filter((step) => (falling ? Number(step) >= atMost : Number(step) <= atMost));
}

/** Steps of each variable that today's precautions leave, with the one that leaves least. */
function openSteps(
  reference: Reference,
  drill: Drill,
  variable: SetupVariable,
  active: readonly ActivePrecaution[],
): { precaution: string; steps: readonly (string | number)[] } | null {
  let open: { precaution: string; steps: readonly (string | number)[] } | null = null;
  const narrow = (precaution: string, steps: readonly (string | number)[]) => {
    const left: readonly (string | number)[] = open ? open.steps.filter((s) => steps.includes(s)) : steps;
    if (left.length < (open?.steps ?? variable.steps).length) open = { precaution, steps: left };
  };
  for (const { id } of active)
    for (const out of reference.precautions.get(id)?.forbidsSetup ?? [])
      if (out.variable === variable.id)
        narrow(
          id,
          variable.steps.filter((step) => !out.steps.includes(step)),
        );
  for (const { precaution, limits } of limitsOn(reference, drill, active)) {
    const atMost = limits.setup?.[variable.id];
    if (atMost !== undefined) narrow(precaution, stepsUpTo(variable, atMost));
  }
  return open;
}

/** The longest hold in seconds that today's precautions leave, and which says so; null without one. */
function longestHold(
  reference: Reference,
  drill: Drill,
  active: readonly ActivePrecaution[],
): { precaution: string; seconds: number } | null {
  return limitsOn(reference, drill, active).reduce<{ precaution: string; seconds: number } | null>(
    (least, { precaution, limits }) =>
      limits.holdSeconds !== undefined && (!least || limits.holdSeconds < least.seconds)
        ? { precaution, seconds: limits.holdSeconds }
        : least,
    null,
  );
}

/** The precaution whose limits no step or hold of a drill keeps to: the drill itself is then out. Null when it can be kept to. */
export function limitsShutOut(
  reference: Reference,
  drill: Drill,
  active: readonly ActivePrecaution[],
): string | null {
  for (const variable of drill.setupVariables) {
    const open = openSteps(reference, drill, variable, active);
    if (open?.steps.length === 0) return open.precaution;
  }
  const hold = longestHold(reference, drill, active);
  const { measure, amount } = drill.dose;
  return hold && measure === 'hold-seconds' && amount.min > hold.seconds ? hold.precaution : null;
}

const amountsOf = ({ amount, perSide }: Limited): number[] =>
  perSide ? [perSide.left.amount, perSide.right.amount] : amount === undefined ? [] : [amount];

/** What of an item goes beyond today's limits; null when nothing does. */
export function beyondLimits(
  reference: Reference,
  drill: Drill,
  item: Limited,
  active: readonly ActivePrecaution[],
): BeyondLimit | null {
  for (const variable of item.setup ? drill.setupVariables : []) {
    const open = openSteps(reference, drill, variable, active);
    const step = item.setup?.[variable.id] ?? variable.default;
    if (open && !open.steps.includes(step) && !(typeof step === 'number' && between(open.steps, step)))
      return { precaution: open.precaution, variable: variable.id, most: open.steps.at(-1) ?? '' };
  }
  const hold = longestHold(reference, drill, active);
  if (!hold) return null;
  const held = drill.dose.measure === 'hold-seconds' ? amountsOf(item) : [item.holdSeconds ?? 0];
  return held.some((seconds) => seconds > hold.seconds)
    ? { precaution: hold.precaution, variable: null, most: hold.seconds }
    : null;
}

/** Does a number between two steps lie within the open ones? */
function between(open: readonly (string | number)[], step: number): boolean {
  const numbers = open.filter((one) => typeof one === 'number');
  return numbers.length > 0 && step <= Math.max(...numbers) && step >= Math.min(...numbers);
}

/** The item held to today's limits: the nearest open step, the longest hold that may be. */
export function withinLimits(
  reference: Reference,
  drill: Drill,
  item: RoutineItem,
  active: readonly ActivePrecaution[],
): RoutineItem {
  let within = item;
  for (let beyond = beyondLimits(reference, drill, within, active); beyond;) {
    within = mended(drill, within, beyond);
    const next = beyondLimits(reference, drill, within, active);
    if (next && next.variable === beyond.variable) return within; // nothing of it is open: the drill itself is out
    beyond = next;
  }
  return within;
}

function mended(drill: Drill, item: RoutineItem, { variable, most }: BeyondLimit): RoutineItem {
  if (variable !== null) return { ...item, setup: { ...item.setup, [variable]: most } };
  const least = (seconds: number) => Math.min(seconds, Number(most));
  if (drill.dose.measure !== 'hold-seconds')
    return { ...item, holdSeconds: item.holdSeconds === null ? null : least(item.holdSeconds) };
  const { perSide } = item;
  const cut = ({ sets, amount }: { sets: number; amount: number }) => ({ sets, amount: least(amount) });
  return {
    ...item,
    amount: least(item.amount),
    ...(perSide ? { perSide: { left: cut(perSide.left), right: cut(perSide.right) } } : {}),
  };
}
