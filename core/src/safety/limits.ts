import type { RoutineItem } from '../domain/index.ts';
import type { Drill, HandlingLimits, Reference, SetupVariable } from '../reference/index.ts';
import type { ActivePrecaution } from './active.ts';

/** What of an item an active precaution rules out although its drill may be done. */
export interface BeyondLimit {
  readonly precaution: string;
  readonly of: 'set-up' | 'hold' | 'sets';
  /** The set-up variable; null for hold and sets. */
  readonly variable: string | null;
  /** The step, the seconds or the sets it may go to. */
  readonly most: string | number;
}

/** A limit that a precaution sets on a drill today. */
interface Limit {
  readonly precaution: string;
  readonly limits: HandlingLimits;
}

/** What an item is judged by here; what is unknown is not judged. */
type Limited = Partial<Pick<RoutineItem, 'setup' | 'sets' | 'amount' | 'holdSeconds' | 'perSide'>>;

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

interface OpenSteps {
  readonly precaution: string;
  readonly steps: readonly (string | number)[];
}

/** Steps of a variable that today's precautions leave, with the last that takes some away; null where all are open. */
function openSteps(
  reference: Reference,
  drill: Drill,
  variable: SetupVariable,
  active: readonly ActivePrecaution[],
): OpenSteps | null {
  const without = active.flatMap(({ id }): OpenSteps[] =>
    (reference.precautions.get(id)?.forbidsSetup ?? [])
      .filter((out) => out.variable === variable.id)
      .map((out) => ({ precaution: id, steps: variable.steps.filter((step) => !out.steps.includes(step)) })),
  );
  const upTo = limitsOn(reference, drill, active).flatMap(({ precaution, limits }): OpenSteps[] => {
    const atMost = limits.setup?.[variable.id];
    return atMost === undefined ? [] : [{ precaution, steps: stepsUpTo(variable, atMost) }];
  });
  return [...without, ...upTo].reduce<OpenSteps | null>((open, next) => {
    const before = open?.steps ?? variable.steps;
    const steps = before.filter((step) => next.steps.includes(step));
    return steps.length < before.length ? { precaution: next.precaution, steps } : open;
  }, null);
}

interface Most {
  readonly precaution: string;
  readonly most: number;
}

/** The longest hold in seconds, or the most sets, that today's precautions leave, and which says so; null without one. */
function leastOf(
  of: 'holdSeconds' | 'sets',
  reference: Reference,
  drill: Drill,
  active: readonly ActivePrecaution[],
): Most | null {
  return limitsOn(reference, drill, active).reduce<Most | null>((least, { precaution, limits }) => {
    const most = limits[of];
    return most !== undefined && (!least || most < least.most) ? { precaution, most } : least;
  }, null);
}

/** Most sets of a drill that today's precautions leave. */
export function mostSets(reference: Reference, drill: Drill, active: readonly ActivePrecaution[]): number {
  return leastOf('sets', reference, drill, active)?.most ?? Infinity;
}

/** What an active precaution limits of a drill, in words made from the figures that are held to; empty where nothing is. */
export function limitsText(reference: Reference, drill: Drill, one: ActivePrecaution): string {
  const ofSetup = drill.setupVariables.flatMap((variable) => {
    const most = openSteps(reference, drill, variable, [one])?.steps.at(-1);
    const unit = variable.unit ? ` ${variable.unit}` : '';
    return most === undefined ? [] : [`${variable.name.toLowerCase()} at most ${most}${unit}`];
  });
  const hold = leastOf('holdSeconds', reference, drill, [one]);
  const sets = leastOf('sets', reference, drill, [one]);
  const holds = drill.dose.measure === 'hold-seconds' || drill.dose.holdSeconds !== null;
  const said = [
    ...ofSetup,
    ...(hold && holds ? [`hold at most ${hold.most} s`] : []),
    ...(sets ? [`at most ${sets.most} sets`] : []),
  ].join(', ');
  return said === '' ? '' : `${said.charAt(0).toUpperCase()}${said.slice(1)}.`;
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
  const hold = leastOf('holdSeconds', reference, drill, active);
  const { measure, amount } = drill.dose;
  return hold && measure === 'hold-seconds' && amount.min > hold.most ? hold.precaution : null;
}

const amountsOf = ({ amount, perSide }: Limited): number[] =>
  perSide ? [perSide.left.amount, perSide.right.amount] : amount === undefined ? [] : [amount];

const setsOf = ({ sets, perSide }: Limited): number[] =>
  perSide ? [perSide.left.sets, perSide.right.sets] : sets === undefined ? [] : [sets];

/** Everything of an item that goes beyond today's limits. */
function allBeyond(
  reference: Reference,
  drill: Drill,
  item: Limited,
  active: readonly ActivePrecaution[],
): BeyondLimit[] {
  const { setup } = item;
  const ofSetup = (setup ? drill.setupVariables : []).flatMap((variable): BeyondLimit[] => {
    const open = openSteps(reference, drill, variable, active);
    const step = setup?.[variable.id] ?? variable.default;
    const most = open?.steps.at(-1);
    if (!open || most === undefined || isOpen(open.steps, step)) return [];
    return [{ precaution: open.precaution, of: 'set-up', variable: variable.id, most }];
  });
  const hold = leastOf('holdSeconds', reference, drill, active);
  const sets = leastOf('sets', reference, drill, active);
  const held = drill.dose.measure === 'hold-seconds' ? amountsOf(item) : [item.holdSeconds ?? 0];
  const beyond = (of: 'hold' | 'sets', limit: Most | null, figures: readonly number[]): BeyondLimit[] =>
    limit !== null && figures.some((one) => one > limit.most) ? [{ ...limit, of, variable: null }] : [];
  return [...ofSetup, ...beyond('hold', hold, held), ...beyond('sets', sets, setsOf(item))];
}

/** What of an item goes beyond today's limits; null when nothing does. */
export function beyondLimits(...asked: Parameters<typeof allBeyond>): BeyondLimit | null {
  return allBeyond(...asked)[0] ?? null;
}

/** Is a step open, or a number between two open ones? */
function isOpen(open: readonly (string | number)[], step: string | number): boolean {
  if (open.includes(step)) return true;
  const numbers = open.filter((one) => typeof one === 'number');
  return (
    typeof step === 'number' &&
    numbers.length > 0 &&
    step <= Math.max(...numbers) &&
    step >= Math.min(...numbers)
  );
}

/** The item held to today's limits: the furthest open step, the longest hold that may be. */
export function withinLimits(
  reference: Reference,
  drill: Drill,
  item: RoutineItem,
  active: readonly ActivePrecaution[],
): RoutineItem {
  return allBeyond(reference, drill, item, active).reduce(
    (within, beyond) => mended(drill, within, beyond),
    item,
  );
}

function mended(drill: Drill, item: RoutineItem, { of, variable, most }: BeyondLimit): RoutineItem {
  if (variable !== null) return { ...item, setup: { ...item.setup, [variable]: most } };
  const least = (figure: number) => Math.min(figure, Number(most));
  if (of === 'sets') {
    const few = (side: { sets: number; amount: number }) => ({ ...side, sets: least(side.sets) });
    const perSide = item.perSide && { left: few(item.perSide.left), right: few(item.perSide.right) };
    return { ...item, sets: least(item.sets), ...(perSide ? { perSide } : {}) };
  }
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
