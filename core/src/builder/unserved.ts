import type { RoutineItem, Side } from '../domain/index.ts';
import type { Barrier, Reason } from '../reasons/index.ts';
import { coversRestriction } from '../reference/index.ts';
import type { Drill } from '../reference/index.ts';
import { covers } from '../safety/index.ts';
import type { Prepared } from './prepared.ts';
import { whatBound } from './room.ts';
import { isOpen, mayServe } from './weights.ts';
import type { WeightedRestriction } from './weights.ts';

/** Something short or sore that no drill of a routine serves, with why and what would be needed. */
export interface Unserved {
  readonly restriction: string;
  readonly side: Side;
  /** Severity of the finding, 0–1; 0 for what is asked for without one. */
  readonly severity: number;
  readonly because: Reason;
}

/** Rules by how easily they could be met: what is missing first, what protects people last. */
const EASE_OF_RULE: readonly Barrier[] = [
  'kit',
  'space',
  'position',
  'ban',
  'disliked',
  'too-long',
  'structure-phase',
  'timing',
  'mode',
  'needs-partner',
  'load-near-limit',
  'level',
  'above-maximum',
  'school',
];

/** What wants a drill. */
type Wanted = Pick<WeightedRestriction, 'restriction' | 'side' | 'symmetryOnly' | 'severity'>;

/** Does an item answer what wants a drill? The model's own notion of serving, so that both count alike. */
function answers(prepared: Prepared, item: Pick<RoutineItem, 'drill' | 'side'>, wanted: Wanted): boolean {
  const drill = prepared.reference.drills.get(item.drill);
  return (
    drill !== undefined && coversRestriction(drill, wanted.restriction) && mayServe(drill, item.side, wanted)
  );
}

/** The rule that keeps the best and nearest of some drills out today; null where none is kept out by a rule. */
export function nearestBarrier(
  prepared: Prepared,
  drills: readonly { readonly drill: Drill; readonly match: number }[],
): Reason | null {
  const ease = (rule: Barrier) => {
    const place = EASE_OF_RULE.indexOf(rule);
    return place < 0 ? EASE_OF_RULE.length : place;
  };
  const kept = drills.flatMap(({ drill, match }) => {
    const rule = prepared.options.ineligible.get(drill.id);
    return rule ? [{ drill: drill.id, match, ...rule }] : [];
  });
  const [nearest] = kept.sort(
    (a, b) => ease(a.rule) - ease(b.rule) || b.match - a.match || (a.drill < b.drill ? -1 : 1),
  );
  if (!nearest) return null;
  const { rule: because, about, drill } = nearest;
  const alike = kept.filter((other) => other.rule === because && other.about === about).length;
  return { rule: 'no-drill-allowed', because, about, drill, drills: alike };
}

/** What would be needed for a restriction that no drill may serve today: the rule on its best and nearest drill. */
function neededFor(prepared: Prepared, { restriction, side, symmetryOnly }: Wanted): Reason {
  const covering = prepared.reference.data.drills.filter((drill) => coversRestriction(drill, restriction));
  const fitting = covering.filter((drill) => mayServe(drill, 'both', { side, symmetryOnly }));
  if (fitting.length === 0 && covering.length > 0) return { rule: 'only-other-side-has-more', restriction };
  const matched = fitting.map((drill) => ({
    drill,
    match: drill.serves.find((s) => s.restriction === restriction)?.match ?? 0,
  }));
  return nearestBarrier(prepared, matched) ?? { rule: 'no-drill-known', restriction };
}

function whyNotServed(prepared: Prepared, items: readonly RoutineItem[], wanted: Wanted): Reason {
  const { restriction, side } = wanted;
  const { reference, rules, safety, problem } = prepared;
  const region = reference.restrictions.get(restriction)?.region ?? 'whole-body';
  const sore = safety.dayRules.find(
    (rule) => rule.band === 'above' && rule.region === region && covers(rule.side, side),
  );
  if (sore) return { rule: 'sore-above-limit', region, pain: sore.nrs, limit: sore.stop };
  const { focus } = rules.request;
  if (focus.length > 0 && !focus.includes(region)) return { rule: 'out-of-focus', region };
  const answering = problem.options.filter(({ item }) => answers(prepared, item, wanted));
  return answering.length > 0 ? whatBound(prepared, items, answering) : neededFor(prepared, wanted);
}

/** Every open finding, and everything else that wants a drill today, that no item serves; worst first. */
export function unservedBy(prepared: Prepared, items: readonly RoutineItem[]): Unserved[] {
  const { report, weights, waiting } = prepared;
  const wanted = new Map<string, Wanted>();
  const put = ({ restriction, side, symmetryOnly, severity }: Wanted) => {
    const one = { restriction, side, symmetryOnly, severity };
    if (!items.some((item) => answers(prepared, item, one))) wanted.set(`${restriction}/${side}`, one);
  };
  for (const weighted of [...weights, ...waiting]) if (weighted.wanted) put(weighted);
  for (const finding of report.findings) if (isOpen(finding) && finding.priority > 0) put(finding);
  return [...wanted.values()]
    .sort((a, b) => b.severity - a.severity || (a.restriction < b.restriction ? -1 : 1))
    .map(({ restriction, side, severity, ...one }) => ({
      restriction,
      side,
      severity,
      because: whyNotServed(prepared, items, { restriction, side, severity, ...one }),
    }));
}
