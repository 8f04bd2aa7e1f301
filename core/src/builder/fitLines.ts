import type { RoutineItem } from '../domain/index.ts';
import type { Barrier, Reason } from '../reasons/index.ts';
import { isLine } from '../reference/index.ts';
import type { Drill } from '../reference/index.ts';
import { drillSafety } from '../safety/index.ts';
import { leadSideOf } from './leadSide.ts';
import { heldToday, nearestAllowed } from './nearestAllowed.ts';
import type { Prepared } from './prepared.ts';
import type { RefitChange } from './refit.ts';
import { hardRule, openSides } from './rules.ts';

/** What the author of a protocol decided: when a drill is done, by which method. It stands. */
const AUTHORS: ReadonlySet<Barrier> = new Set(['timing', 'mode', 'school']);

/** Why a drill of a protocol cannot stand for this athlete: safety, kit, space, level; null where it can. */
function demandOn(prepared: Prepared, drill: Drill): { because: Barrier; about: string } | null {
  const rule = hardRule(prepared.rules, drill);
  if (rule && !AUTHORS.has(rule.rule)) return { because: rule.rule, about: rule.about };
  const { open, closed } = openSides(prepared.rules, drill, false);
  return open.length === 0 ? { because: 'level', about: closed ?? '' } : null;
}

/**
 * A line on the one side that is open, where it was written for both, with why the other is not; null where it stands. Of what
 * rehearses an action the side is the author's.
 */
function onOneSide(
  prepared: Prepared,
  drill: Drill,
  item: RoutineItem,
): { item: RoutineItem; because: Barrier; about: string } | null {
  const { reference, standing, safety } = prepared;
  if (!drill.unilateral || item.side !== 'both' || leadSideOf(reference, standing, drill) !== null)
    return null;
  const { open, closed: level } = openSides(prepared.rules, drill, false);
  const [one] = open;
  if (open.length !== 1 || (one?.side !== 'left' && one?.side !== 'right')) return null;
  const shut = one.side === 'left' ? 'right' : 'left';
  const { sides, closed } = drillSafety(reference, drill, safety);
  const { perSide, ...rest } = item;
  const why =
    closed[shut] ??
    (sides[shut]
      ? { rule: 'level' as const, about: level ?? '' }
      : { rule: 'protocol' as const, about: shut });
  return { item: { ...rest, ...perSide?.[one.side], side: one.side }, because: why.rule, about: why.about };
}

/** A protocol fitted to an athlete. */
export interface FittedLines {
  readonly items: readonly RoutineItem[];
  readonly changes: readonly RefitChange[];
}

/**
 * The lines of a protocol fitted to an athlete: the author's drills in the author's order with the author's doses; only what
 * safety, kit, space, level or side demand is otherwise, each with its reason. What nothing can stand for is left out.
 */
export function fitLines(prepared: Prepared, written: readonly RoutineItem[]): FittedLines {
  const changes: RefitChange[] = [];
  const may = (drill: Drill) => demandOn(prepared, drill) === null;
  const items = written.flatMap((item): RoutineItem[] => {
    const drill = isLine(item.drill) ? undefined : prepared.reference.drills.get(item.drill);
    if (!drill) return [item];
    const change = (what: RefitChange['what'], instead: string | null, why: Reason) =>
      changes.push({ drill: drill.id, what, instead, why });
    const one = onOneSide(prepared, drill, item);
    const fitted = one?.item ?? item;
    const fault = heldToday(prepared, fitted)?.fault;
    const because = demandOn(prepared, drill) ?? (fault ? { because: fault.rule, about: fault.about } : null);
    if (!because) {
      if (one)
        change('one-side', null, {
          rule: 'not-offered',
          drill: drill.id,
          because: one.because,
          about: one.about,
        });
      else change('kept', null, { rule: 'preferred', drill: drill.id });
      return [fitted];
    }
    const why: Reason = { rule: 'not-offered', drill: drill.id, ...because };
    const other = nearestAllowed(prepared, item, may);
    const ladder = other ? prepared.reference.drills.get(other.drill)?.ladder : undefined;
    if (!other || heldToday(prepared, other)) {
      change('left-out', null, why);
      return [];
    }
    change(ladder === drill.ladder ? 'level' : 'swapped', other.drill, why);
    return [item.circuit ? { ...other, circuit: item.circuit } : other];
  });
  return { items, changes };
}
