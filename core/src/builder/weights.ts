import type { Assessment } from '../assess/index.ts';
import type { BuildRequest, ItemSide, Standing, Region, Side } from '../domain/index.ts';
import { recentlyInjured } from '../findings/index.ts';
import type { Finding } from '../findings/index.ts';
import { reachesSide } from '../reference/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import type { WantedElement } from '../readiness/index.ts';
import { covers } from '../safety/index.ts';
import type { DayPattern } from './dayPattern.ts';
import { BUILDER } from './settings.ts';

/** A restriction and side the routine should serve, with its weight 0–1 ("need" in the solver notes). */
export interface WeightedRestriction {
  readonly restriction: string;
  readonly region: Region;
  readonly side: Side;
  readonly weight: number;
  /** What coverage goes by: the weight before the action of the day lowered it; of an element 1 where it comes before others. */
  readonly priority: number;
  /** Symmetry alone speaks: no mobilise or stretch drill for it. */
  readonly symmetryOnly: boolean;
  readonly from: 'finding' | 'task' | 'injury' | 'pain' | 'pattern' | 'element';
  /** Wants a drill, or a word why there is none. */
  readonly wanted: boolean;
  /** Severity of the open finding behind it; 0 where there is none. */
  readonly severity: number;
}

/** Does what follows, or a joint to look after, ask for it, and no restriction of the athlete? */
export function isOfAction<T extends Pick<WeightedRestriction, 'from'>>(
  weighted: T,
): weighted is T & { readonly from: 'pattern' | 'element' } {
  return ['pattern', 'element'].includes(weighted.from);
}

/**
 * May a drill done on a side be said to serve what is weighted? It has to reach its side, and range is not worked on
 * where a side has what it needs and only the other one has more (rulings, symmetry).
 */
export function mayServe(
  drill: Drill,
  side: ItemSide,
  weighted: Pick<WeightedRestriction, 'side' | 'symmetryOnly'>,
): boolean {
  const range = drill.category === 'mobilise' || drill.category === 'stretch';
  return reachesSide(drill, side, weighted.side) && !(weighted.symmetryOnly && range);
}

const keyOf = (w: Pick<WeightedRestriction, 'restriction' | 'side'>) => `${w.restriction}/${w.side}`;

/** An open finding is answered with a drill, or named with why not. */
export function isOpen({ severity, state }: Pick<Finding, 'severity' | 'state'>): boolean {
  return severity >= BUILDER.answeredFrom && (state === 'short' || state === 'likely-short');
}

function fromFindings(findings: readonly Finding[]): WeightedRestriction[] {
  return findings
    .filter((finding) => finding.priority > 0)
    .map((finding) => ({
      restriction: finding.restriction,
      region: finding.region,
      side: finding.side,
      weight: finding.priority,
      priority: finding.priority,
      symmetryOnly: finding.symmetryOnly,
      from: 'finding' as const,
      severity: finding.severity,
      wanted: isOpen(finding) || finding.priority >= BUILDER.coverWanted,
    }));
}

function sidesOf(reference: Reference, restriction: string): Side[] {
  return reference.restrictions.get(restriction)?.laterality === 'central' ? ['central'] : ['left', 'right'];
}

/** Of each restriction and side the one that weighs most; what was found before what is only likely. */
function strongest(all: readonly WeightedRestriction[]): WeightedRestriction[] {
  const kept = new Map<string, WeightedRestriction>();
  for (const weighted of all) {
    const known = kept.get(keyOf(weighted));
    if (!known || known.weight <= weighted.weight) kept.set(keyOf(weighted), weighted);
  }
  return [...kept.values()];
}

/** Weights without screening: the tasks' demands and recent injuries, marked general. */
function generalWeights(
  reference: Reference,
  input: Standing,
  own: Standing['athlete']['tasks'],
): WeightedRestriction[] {
  const weights = new Map<string, WeightedRestriction>();
  const put = (restriction: string, side: Side, weight: number, from: 'task' | 'injury') => {
    const { region, kind } = reference.restrictions.get(restriction) ?? {};
    const key = keyOf({ restriction, side });
    // Nobody's task makes a region sore: load tolerance counts by a finding, by pain, or by an injury.
    if (!region || (from === 'task' && kind === 'load-tolerance')) return;
    if ((weights.get(key)?.weight ?? 0) >= weight) return;
    const common = { priority: weight, symmetryOnly: false, severity: 0, wanted: false };
    weights.set(key, { restriction, region, side, weight, from, ...common });
  };
  // What a task works is no figure of adults: it counts for the growing as well.
  for (const task of own) {
    for (const demand of reference.demands.get(task.id)?.demands ?? []) {
      for (const id of demand.informs) {
        for (const side of sidesOf(reference, id)) put(id, side, BUILDER.generalTaskWeight, 'task');
      }
    }
  }
  for (const restriction of reference.data.restrictions) {
    for (const side of sidesOf(reference, restriction.id)) {
      if (recentlyInjured(reference, input, restriction, side)) {
        put(restriction.id, side, BUILDER.generalInjuryWeight, 'injury');
      }
    }
  }
  return [...weights.values()];
}

/**
 * The weights as the action of the day sees them: what it asks for counts by the more demanding of the athlete's own
 * tasks and the action; everything else keeps a share.
 */
function weighedForPattern(
  own: readonly WeightedRestriction[],
  asked: readonly WeightedRestriction[],
  day: DayPattern,
): WeightedRestriction[] {
  const merged = new Map<string, WeightedRestriction>();
  for (const weighted of own) {
    const here = day.asks.has(weighted.restriction);
    const weight = here ? weighted.weight : weighted.weight * BUILDER.elsewhereToday;
    merged.set(keyOf(weighted), { ...weighted, weight });
  }
  for (const weighted of asked) {
    if (!day.asks.has(weighted.restriction)) continue;
    const known = merged.get(keyOf(weighted));
    if (!known || known.weight < weighted.weight)
      merged.set(keyOf(weighted), {
        ...weighted,
        priority: Math.max(weighted.priority, known?.priority ?? 0),
      });
  }
  return [...merged.values()];
}

/** What hurts and is told counts without a finding: the restriction that the pattern of the pain speaks for. */
function fromPain(assessment: Assessment): WeightedRestriction[] {
  const { reference, standing, report, safety } = assessment;
  const hits = report.patterns.filter((hit) => hit.restriction !== null && !hit.refer);
  return safety.dayRules.flatMap(({ region, side }) => {
    const spoken = hits.filter((hit) => hit.region === region && hit.side === side);
    const tolerance = reference.data.restrictions.filter(
      (one) => one.region === region && one.id.endsWith('-irritability'),
    );
    const [only, ...others] = tolerance;
    const restrictions = new Set([
      ...spoken.flatMap((hit) => hit.restriction ?? []),
      ...(only && others.length === 0 ? [only.id] : []),
    ]);
    return [...restrictions].flatMap((restriction): WeightedRestriction[] => {
      const found = report.findings.find((one) => one.restriction === restriction && one.side === side);
      if (found && found.priority >= BUILDER.painWeight) return [];
      const sides = sidesOf(reference, restriction);
      const where = sides.includes(side) ? [side] : side === 'central' ? sides : (['central'] as const);
      return where.map((own): WeightedRestriction => ({
        restriction,
        region: reference.restrictions.get(restriction)?.region ?? region,
        side: own,
        weight: BUILDER.painWeight,
        priority: BUILDER.painWeight,
        symmetryOnly: false,
        from: 'pain',
        severity: 0,
        wanted: standing.athlete.pains.length > 0 || spoken.length > 0,
      }));
    });
  });
}

/** What is asked for beside everything that is short: rehearsing what follows, and each element that a routine should hold. */
function beside(elements: readonly WantedElement[], rehearses: boolean): WeightedRestriction[] {
  const common = { side: 'central', priority: 0, symmetryOnly: false, severity: 0, wanted: false } as const;
  const rehearsal: WeightedRestriction = {
    ...common,
    region: 'whole-body',
    restriction: 'rehearsal',
    weight: BUILDER.patternWeight,
    from: 'pattern',
  };
  return [
    ...(rehearses ? [rehearsal] : []),
    ...elements.map(({ element, first }, place): WeightedRestriction => ({
      ...common,
      priority: first ? 1 : 0,
      region: element.regions[0] ?? 'whole-body',
      restriction: element.id,
      weight: BUILDER.elementWeight * BUILDER.elementDecay ** place,
      from: 'element',
    })),
  ];
}

/** What is asked for today, and what of it has to wait. */
export interface Weighed {
  readonly weights: readonly WeightedRestriction[];
  /** Left out for the day: what hurts above the stop limit, and what lies outside the focus. */
  readonly waiting: readonly WeightedRestriction[];
  /** Nothing has been screened: the weights come from tasks, injuries and pain alone. */
  readonly general: boolean;
}

/**
 * The restrictions to serve, sorted by id and side so that the same input gives the same model. What hurts above the stop
 * limit waits, and so does what lies outside the joints to look after today.
 */
export function restrictionWeights(
  assessment: Assessment,
  request: BuildRequest,
  actions: readonly string[],
  elements: readonly WantedElement[],
  day: DayPattern | null,
): Weighed {
  const { reference, standing, report, safety } = assessment;
  const general = report.capacities.length === 0;
  const weigh = (tasks: Standing['athlete']['tasks'], findings: readonly Finding[]) =>
    strongest([...(general ? generalWeights(reference, standing, tasks) : []), ...fromFindings(findings)]);
  const own = weigh(standing.athlete.tasks, report.findings);
  const asked = day ? weighedForPattern(own, weigh(day.tasks, day.findings), day) : own;
  const merged = new Map(asked.map((weighted) => [keyOf(weighted), weighted]));
  for (const pain of fromPain(assessment)) {
    const known = merged.get(keyOf(pain));
    if (!known || known.weight < pain.weight)
      merged.set(keyOf(pain), { ...pain, severity: known?.severity ?? 0 });
  }
  // An open finding wants a drill whatever else speaks for the same restriction: pain, or the action of the day.
  const open = new Set(report.findings.filter((f) => isOpen(f) && f.priority > 0).map(keyOf));
  const all = [...merged.values()]
    .map((weighted) => ({ ...weighted, wanted: weighted.wanted || open.has(keyOf(weighted)) }))
    .sort((a, b) => (keyOf(a) < keyOf(b) ? -1 : 1));
  const waits = ({ region, side }: WeightedRestriction) =>
    (request.focus.length > 0 && !request.focus.includes(region)) ||
    safety.dayRules.some(
      (rule) => rule.band === 'above' && rule.region === region && covers(rule.side, side),
    );
  const rehearses = request.mode === 'prepare' && actions.length > 0;
  return {
    general,
    weights: [...all.filter((weighted) => !waits(weighted)), ...beside(elements, rehearses)],
    waiting: all.filter(waits),
  };
}
