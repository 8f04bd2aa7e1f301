import type { RoutineItem, Side } from '../domain/index.ts';
import type { Barrier, Reason } from '../reasons/index.ts';
import { coversRestriction, reachesSide } from '../reference/index.ts';
import { covers } from '../safety/index.ts';
import type { Prepared } from './prepared.ts';
import { BUILDER } from './settings.ts';
import { isOpen } from './weights.ts';

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

/** What would be needed for a restriction that no drill may serve today: the rule on its best and nearest drill. */
function neededFor(prepared: Prepared, restriction: string): Reason {
  const ease = (rule: Barrier) => {
    const place = EASE_OF_RULE.indexOf(rule);
    return place < 0 ? EASE_OF_RULE.length : place;
  };
  const kept = prepared.reference.data.drills.flatMap((drill) => {
    const match = drill.serves.find((s) => s.restriction === restriction)?.match ?? 0;
    const rule = match >= BUILDER.coverMatch ? prepared.options.ineligible.get(drill.id) : undefined;
    return rule ? [{ drill: drill.id, match, ...rule }] : [];
  });
  const [nearest] = kept.sort(
    (a, b) => ease(a.rule) - ease(b.rule) || b.match - a.match || (a.drill < b.drill ? -1 : 1),
  );
  if (!nearest) return { rule: 'no-drill-known', restriction };
  const { rule: because, about, drill } = nearest;
  const drills = kept.filter((other) => other.rule === because && other.about === about).length;
  return { rule: 'no-drill-allowed', because, about, drill, drills };
}

function whyNotServed(prepared: Prepared, restriction: string, side: Side): Reason {
  const { reference, rules, safety, problem, chosen } = prepared;
  const region = reference.restrictions.get(restriction)?.region ?? 'whole-body';
  const sore = safety.dayRules.find(
    (rule) => rule.band === 'above' && rule.region === region && covers(rule.side, side),
  );
  if (sore) return { rule: 'sore-above-limit', region, pain: sore.nrs, limit: sore.stop };
  const { focus } = rules.request;
  if (focus.length > 0 && !focus.includes(region)) return { rule: 'out-of-focus', region };
  const possible = problem.options.some(({ drill: id, item }) => {
    const drill = reference.drills.get(id);
    return drill && coversRestriction(drill, restriction) && reachesSide(drill, item.side, side);
  });
  return possible
    ? { rule: 'no-room', minutes: chosen.minutes, maxDrills: problem.maxDrills }
    : neededFor(prepared, restriction);
}

/** Every open finding, and everything else that wants a drill today, that no item serves; worst first. */
export function unservedBy(
  prepared: Prepared,
  items: readonly Pick<RoutineItem, 'drill' | 'side'>[],
): Unserved[] {
  const { reference, report, weights, waiting } = prepared;
  const served = (restriction: string, side: Side) =>
    items.some((item) => {
      const drill = reference.drills.get(item.drill);
      return drill && coversRestriction(drill, restriction) && reachesSide(drill, item.side, side);
    });
  const wanted = new Map<string, { restriction: string; side: Side; severity: number }>();
  const put = (restriction: string, side: Side, severity: number) => {
    if (!served(restriction, side)) wanted.set(`${restriction}/${side}`, { restriction, side, severity });
  };
  for (const { wanted: asked, restriction, side, severity } of [...weights, ...waiting])
    if (asked) put(restriction, side, severity);
  for (const finding of report.findings)
    if (isOpen(finding) && finding.priority > 0) put(finding.restriction, finding.side, finding.severity);
  return [...wanted.values()]
    .sort((a, b) => b.severity - a.severity || (a.restriction < b.restriction ? -1 : 1))
    .map((one) => ({ ...one, because: whyNotServed(prepared, one.restriction, one.side) }));
}
