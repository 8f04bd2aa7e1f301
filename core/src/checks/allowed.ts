import { hardRuleOf, nearestAllowed, softRuleOf, swapsFor } from '../builder/index.ts';
import { beyondLimits, closedFor, drillSafety, withinLimits } from '../safety/index.ts';
import type { BeyondLimit } from '../safety/index.ts';
import type { Barrier, Reason } from '../reasons/index.ts';
import type { Check, Checked, Placed, Repair } from './types.ts';

const SAFETY_RULES: ReadonlySet<Barrier> = new Set([
  'blocked-region',
  'impact-closed',
  'precaution-exclude',
  'precaution-clearance',
  'day-rule',
  'referred',
  'protocol',
  'youth',
]);

/** Rules that have a check of their own, with a better repair than a swap. */
const ELSEWHERE: ReadonlySet<Barrier> = new Set(['timing', 'mode', 'school']);

/** The best drill that does the same job in the item's place, else the nearest that safety allows; else the item left out. */
export function swapOrRemove({ prepared, items }: Checked, index: number): Repair {
  const [swap] = swapsFor(prepared, items, index);
  const own = items[index];
  const drill = own?.drill ?? '';
  const near = swap?.item ?? (own ? nearestAllowed(prepared, own) : null);
  const taken = near && items.some((item) => item.drill === near.drill);
  return near && !taken
    ? {
        does: { rule: 'repair-swap', drill, instead: near.drill },
        items: items.map((item, i) => (i === index ? near : item)),
      }
    : { does: { rule: 'repair-remove', drill }, items: items.filter((_, i) => i !== index) };
}

/** A set-up or a hold that a precaution rules out; the furthest that it allows takes its place. */
function beyondHandling(checked: Checked, { item, drill, index }: Placed, beyond: BeyondLimit): Check {
  const { precaution: about, of, variable, most } = beyond;
  const { reference, safety } = checked.prepared;
  const mended = withinLimits(reference, drill, item, safety.precautions);
  const name = drill.setupVariables.find((v) => v.id === variable)?.name ?? (of === 'sets' ? 'Sets' : 'Hold');
  return {
    level: 'stop',
    reason: { rule: 'forbidden-today', drill: drill.id, because: 'precaution-exclude', about },
    at: [index],
    repair: {
      does: { rule: 'repair-setup', variable: name, to: String(most) },
      items: checked.items.map((own, i) => (i === index ? mended : own)),
    },
  };
}

/** Precautions, stop signs, protocols and age always stop; kit, position, bans and dislikes warn. */
export function checkAllowed(checked: Checked): Check[] {
  return checked.placed.flatMap((placed): Check[] => {
    const { drill, index } = placed;
    // A pin lifts the soft rules, never the hard ones.
    const pinned = checked.prepared.request.pins.includes(drill.id);
    const rule = hardRuleOf(checked.prepared, drill) ?? (pinned ? null : softRuleOf(checked.prepared, drill));
    if (rule && !ELSEWHERE.has(rule.rule)) {
      const stops = SAFETY_RULES.has(rule.rule);
      const why = { drill: drill.id, because: rule.rule, about: rule.about };
      const reason: Reason = stops ? { rule: 'forbidden-today', ...why } : { rule: 'not-at-hand', ...why };
      const repair = swapOrRemove(checked, index);
      return [{ level: stops ? 'stop' : 'warn', reason, at: [index], repair }];
    }
    const { reference, safety } = checked.prepared;
    const beyond = beyondLimits(reference, drill, placed.item, safety.precautions);
    if (beyond) return [beyondHandling(checked, placed, beyond)];
    const closed = closedFor(drillSafety(reference, drill, safety), placed.item.side);
    if (!closed) return [];
    const { open, rule: why } = closed;
    const { perSide: _uneven, ...item } = placed.item;
    const repair: Repair =
      open !== null && drill.unilateral
        ? {
            does: { rule: 'repair-one-side', drill: drill.id, side: open },
            items: checked.items.map((own, i) => (i === index ? { ...item, side: open } : own)),
          }
        : swapOrRemove(checked, index);
    const reason: Reason = { rule: 'forbidden-today', drill: drill.id, because: why.rule, about: why.about };
    return [{ level: 'stop', reason, at: [index], repair }];
  });
}
