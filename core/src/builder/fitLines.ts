import type { RoutineItem } from '../domain/index.ts';
import { dosedItem, setsFor } from '../dose/index.ts';
import type { Barrier, Reason } from '../reasons/index.ts';
import { isLine } from '../reference/index.ts';
import type { Drill } from '../reference/index.ts';
import { heldToday } from './nearestAllowed.ts';
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

/** Drills that could stand for another, best first: an easier rung, what does the same, what does most of it. */
function instead(prepared: Prepared, own: Drill): Drill | null {
  const { reference } = prepared;
  const shared = (other: Drill) =>
    own.serves.reduce(
      (sum, { restriction, match }) =>
        sum + Math.min(match, other.serves.find((s) => s.restriction === restriction)?.match ?? 0),
      0,
    );
  const whole = own.serves.reduce((sum, { match }) => sum + match, 0) || 1;
  const near = (other: Drill) =>
    shared(other) / whole +
    (other.ladder === own.ladder ? 1 : 0) +
    (own.equivalents.includes(other.id) ? 0.5 : 0) +
    (other.category === own.category ? 0.2 : 0);
  const [best] = reference.data.drills
    .filter((other) => other.id !== own.id && !other.archived && other.demandIndex <= own.demandIndex)
    .map((drill) => ({ drill, near: near(drill) }))
    .filter((one) => one.near >= 0.6)
    .sort(
      (a, b) =>
        b.near - a.near || b.drill.demandIndex - a.drill.demandIndex || (a.drill.id < b.drill.id ? -1 : 1),
    )
    .filter((one) => demandOn(prepared, one.drill) === null);
  return best?.drill ?? null;
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
  const items = written.flatMap((item): RoutineItem[] => {
    const drill = isLine(item.drill) ? undefined : prepared.reference.drills.get(item.drill);
    if (!drill) return [item];
    const held = heldToday(prepared, item);
    const why: Reason | null = (() => {
      const demand = demandOn(prepared, drill);
      if (demand) return { rule: 'not-offered', drill: drill.id, ...demand };
      return held
        ? { rule: 'not-offered', drill: drill.id, because: held.fault.rule, about: held.fault.about }
        : null;
    })();
    const sides = openSides(prepared.rules, drill, false).open;
    if (!why) {
      const one =
        drill.unilateral && item.side === 'both' && !sides.some(({ side }) => side === 'both')
          ? sides[0]
          : undefined;
      const side = one?.side ?? item.side;
      changes.push({
        drill: drill.id,
        what: 'kept',
        instead: null,
        why: { rule: 'preferred', drill: drill.id },
      });
      return [side === item.side ? item : { ...item, side }];
    }
    const other = instead(prepared, drill);
    if (!other) {
      changes.push({ drill: drill.id, what: 'left-out', instead: null, why });
      return [];
    }
    const side = other.unilateral && item.side !== 'central' ? item.side : 'both';
    const usual = setsFor(prepared.dose, other);
    const { item: dosed } = dosedItem(
      prepared.dose,
      other,
      side,
      usual.includes(item.sets) ? item.sets : (usual[0] ?? 1),
      item.phase,
    );
    const next = { ...dosed, ...(item.circuit ? { circuit: item.circuit } : {}) };
    if (heldToday(prepared, next)) {
      changes.push({ drill: drill.id, what: 'left-out', instead: null, why });
      return [];
    }
    changes.push({
      drill: drill.id,
      what: other.ladder === drill.ladder ? 'level' : 'swapped',
      instead: other.id,
      why,
    });
    return [next];
  });
  return { items, changes };
}
