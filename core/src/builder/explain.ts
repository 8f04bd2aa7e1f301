import { sameJson } from '../domain/index.ts';
import type { RoutineItem, Side } from '../domain/index.ts';
import { schoolOption } from '../findings/index.ts';
import type { Reason, ReasonOf } from '../reasons/index.ts';
import { drillSafety, works } from '../safety/index.ts';
import type { DayRule, Forbidden } from '../safety/index.ts';
import type { Prepared } from './prepared.ts';
import type { Option } from './options.ts';
import { isLine } from '../reference/index.ts';
import { BUILDER } from './settings.ts';
import { HARD_FINISH } from './promises.ts';
import { isOfAction, mayServe } from './weights.ts';

/** What an item does for the athlete and why it is in, or what speaks against it. */
export interface ItemExplanation {
  readonly drill: string;
  readonly serves: readonly { restriction: string; side: Side; match: number }[];
  readonly reasons: readonly Reason[];
  /** Handling texts of precautions, and rules that forbid the drill today. */
  readonly cautions: readonly Reason[];
}

/** Weighted restrictions that an option serves. */
export function servesOf(prepared: Prepared, option: Option): ItemExplanation['serves'] {
  return option.benefit.flatMap(({ need, match }) => {
    const weighted = prepared.weights[need];
    return weighted && !isOfAction(weighted)
      ? [{ restriction: weighted.restriction, side: weighted.side, match }]
      : [];
  });
}

function servingReasons(prepared: Prepared, option: Option): Reason[] {
  return option.benefit
    .flatMap(({ need, match }) => {
      const weighted = prepared.weights[need];
      return weighted ? [{ weighted, match }] : [];
    })
    .sort((a, b) => b.weighted.weight * b.match - a.weighted.weight * a.match)
    .map(({ weighted, match }): Reason => {
      if (isOfAction(weighted)) {
        if (weighted.from === 'element') return { rule: 'readies', element: weighted.restriction, match };
        const rule = weighted.from === 'pattern' ? 'rehearses' : 'prepares-action';
        return { rule, pattern: option.rehearses ?? '', match };
      }
      return {
        rule: 'serves',
        restriction: weighted.restriction,
        side: weighted.side,
        match,
        weight: weighted.weight,
        from: weighted.from as ReasonOf<'serves'>['from'],
      };
    });
}

/** What closes the side that an item leaves out, in the word for it. */
const CLOSED_BY: Partial<Record<Forbidden['rule'], ReasonOf<'short-side-only'>['other']>> = {
  protocol: 'not-offered',
  'day-rule': 'hurts',
  referred: 'referred',
  'precaution-clearance': 'precaution',
  'precaution-exclude': 'precaution',
};

/** What is known of the side that an item leaves out: said only of what was measured. */
function otherSideOf(
  prepared: Prepared,
  option: Option,
  side: 'left' | 'right',
): ReasonOf<'short-side-only'>['other'] {
  const other = side === 'left' ? 'right' : 'left';
  const { reference } = prepared;
  const drill = reference.drills.get(option.drill);
  const safety = drill && drillSafety(reference, drill, prepared.safety);
  if (safety && !safety.sides[other])
    return CLOSED_BY[safety.closed[other]?.rule ?? 'protocol'] ?? 'not-offered';
  const served = option.benefit.flatMap(({ need }) => prepared.weights[need]?.restriction ?? []);
  const found = prepared.report.findings.filter((f) => f.side === other && served.includes(f.restriction));
  const judged = new Set(found.filter((f) => f.evidence.length > 0).map((f) => f.restriction));
  if (found.some((f) => f.severity > 0)) return 'short';
  if (served.length > 0 && served.every((id) => judged.has(id))) return 'enough';
  const tests = served.flatMap((id) => reference.restrictions.get(id)?.tests ?? []);
  const measured = prepared.report.capacities.some((one) => one.side === other && tests.includes(one.test));
  return measured ? 'partly-measured' : 'not-measured';
}

/** A region that hurts a little today and that the drill works: asked about afterwards. */
function watchedRegion(prepared: Prepared, drillId: string): DayRule | undefined {
  const drill = prepared.reference.drills.get(drillId);
  return prepared.safety.dayRules.find((rule) => drill && rule.band !== 'above' && works(drill, rule.region));
}

/** The schools to which an option owes its place: what would not stand there under another option of theirs. */
function schoolReasons(prepared: Prepared, option: Option): Reason[] {
  const { reference, standing, request, promised } = prepared.rules;
  const last = option.phase === prepared.chosen.phases.length - 1;
  const prepare = request.mode === 'prepare';
  const owes: readonly (readonly [string, boolean])[] = [
    ['static-stretch-before', prepare && option.category === 'stretch'],
    ['breathless-or-conversational', promised.includes(HARD_FINISH) && last && option.intensity === 'high'],
    ['release-first', prepare && option.category === 'release'],
    ['sequence-before-strength', prepare && option.category === 'strengthen'],
    ['tendon-isometrics', option.doseReason.rule === 'dose-tendon-hold'],
    ['modify-around-or-restore', prepared.rules.restoring.has(option.drill)],
  ];
  return owes.flatMap(([school, acts]): Reason[] =>
    acts ? [{ rule: 'by-school', school, option: schoolOption(reference, standing.schools, school) }] : [],
  );
}

/** Why an option is worth choosing: what it serves, its phase, its level, its dose, its side. */
export function optionReasons(prepared: Prepared, option: Option): Reason[] {
  const reasons = servingReasons(prepared, option);
  const phase = prepared.chosen.phases[option.phase];
  if (option.filler) reasons.push({ rule: 'fills-phase', phase: phase?.name ?? '' });
  if (option.pinned) reasons.push({ rule: 'pinned', drill: option.drill });
  reasons.push({ rule: `level-${option.open.by}`, drill: option.drill, confirm: option.open.confirm });
  reasons.push(option.doseReason);
  const { side } = option.item;
  if (side === 'left' || side === 'right')
    reasons.push({ rule: 'short-side-only', side, other: otherSideOf(prepared, option, side) });
  const { perSide } = option.item;
  if (perSide && perSide.left.sets !== perSide.right.sets)
    reasons.push({ rule: 'extra-set', side: perSide.left.sets > perSide.right.sets ? 'left' : 'right' });
  reasons.push(...schoolReasons(prepared, option));
  const watched = watchedRegion(prepared, option.drill);
  if (watched) reasons.push({ rule: 'watch', region: watched.region, pain: watched.nrs });
  if (prepared.request.prefer.includes(option.drill))
    reasons.push({ rule: 'preferred', drill: option.drill });
  return reasons;
}

/** Handling texts under which a drill may be done today, and that it is looser than what it comes from. */
export function handlingOf(prepared: Prepared, drillId: string): Reason[] {
  const drill = prepared.reference.drills.get(drillId);
  if (!drill) return [];
  const { looser } = drill;
  const handling = drillSafety(prepared.reference, drill, prepared.safety).handling;
  return [
    ...handling.map(({ precaution, text }): Reason => ({
      rule: 'handle-with-care',
      drill: drill.id,
      precaution,
      text,
    })),
    ...(looser ? [{ rule: 'looser-than-source', drill: drill.id, ...looser } as const] : []),
  ];
}

/** The option nearest to an item as it stands; undefined where the builder has none for its drill. */
export function optionFor(prepared: Prepared, item: RoutineItem): Option | undefined {
  const own = prepared.options.options
    .filter((option) => option.drill === item.drill)
    .sort((a, b) => Number(b.item.amount === item.amount) - Number(a.item.amount === item.amount));
  return (
    own.find(
      (o) => o.item.side === item.side && o.item.sets === item.sets && sameJson(o.item.perSide, item.perSide),
    ) ??
    own.find((o) => o.item.side === item.side && o.item.sets === item.sets) ??
    own.find((o) => o.item.side === item.side) ??
    own[0]
  );
}

/** The reasons of an option that hold for an item done on its side: why one side alone, only where it is one. */
function reasonsOn(prepared: Prepared, option: Option, item: RoutineItem): Reason[] {
  const reasons = optionReasons(prepared, option);
  return option.item.side === item.side
    ? reasons
    : reasons.filter(({ rule }) => rule !== 'short-side-only' && rule !== 'extra-set');
}

/** What an item serves by its matches alone, for drills the builder has no option for (edited by hand). */
export function servesByMatch(prepared: Prepared, item: RoutineItem): ItemExplanation['serves'] {
  const drill = prepared.reference.drills.get(item.drill);
  return prepared.weights.flatMap((weighted) => {
    const match = drill?.serves.find((s) => s.restriction === weighted.restriction)?.match ?? 0;
    return drill && match >= BUILDER.coverMatch && mayServe(drill, item.side, weighted)
      ? [{ restriction: weighted.restriction, side: weighted.side, match }]
      : [];
  });
}

/** Explains items as they stand, built or edited by hand, each with what forbids it or asks for care today. */
export function explainItems(prepared: Prepared, items: readonly RoutineItem[]): ItemExplanation[] {
  return items.map((item) => {
    if (isLine(item.drill)) return { drill: item.drill, serves: [], reasons: [], cautions: [] };
    const option = optionFor(prepared, item);
    const cautions = handlingOf(prepared, item.drill);
    if (option) {
      return {
        drill: item.drill,
        serves: servesOf(prepared, option),
        reasons: reasonsOn(prepared, option, item).map((reason) =>
          reason === option.doseReason && item.amount !== option.item.amount
            ? { rule: 'dose-as-it-stands', amount: item.amount, byRule: option.item.amount }
            : reason,
        ),
        cautions,
      };
    }
    const rule = prepared.options.ineligible.get(item.drill) ?? { rule: 'serves-nothing', about: item.drill };
    return {
      drill: item.drill,
      serves: servesByMatch(prepared, item),
      reasons: [{ rule: 'chosen-by-hand', drill: item.drill }],
      cautions: [
        ...cautions,
        { rule: 'not-offered', because: rule.rule, about: rule.about, drill: item.drill },
      ],
    };
  });
}
