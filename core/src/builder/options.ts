import type { Mode, ItemSide, Region, RoutineItem, Side } from '../domain/index.ts';
import { dosedItem, isFloor, itemSeconds, setsFor } from '../dose/index.ts';
import type { DoseContext } from '../dose/index.ts';
import type { Reason } from '../reasons/index.ts';
import { schoolOption } from '../findings/index.ts';
import { FIT, fitOf } from '../readiness/index.ts';
import { kitUsed, loadOn } from '../reference/index.ts';
import { drillSafety } from '../safety/index.ts';
import type { Drill } from '../reference/index.ts';
import { nearestAction } from './dayActions.ts';
import {
  answerOf,
  fitsPhase,
  foreignness,
  hardRule,
  nearestTag,
  isFiller,
  isPreparing,
  mobilisesReserve,
  openSides,
  rangesWithReserve,
  softRule,
} from './rules.ts';
import type { Ineligible, OpenSide, RuleContext } from './rules.ts';
import { BUILDER } from './settings.ts';
import type { TodaysPhase } from './structures.ts';
import { isOfAction, isOpen, mayServe } from './weights.ts';
import { HARD_FINISH } from './promises.ts';
import type { WeightedRestriction } from './weights.ts';

/** One way to include a drill: phase, side and sets, with what it gives and costs. */
export interface Option {
  readonly drill: string;
  readonly ladder: string;
  readonly phase: number;
  readonly item: RoutineItem;
  /** Seconds of the item itself, without change-over. */
  readonly seconds: number;
  readonly fatigue: number;
  readonly contacts: number;
  readonly staticSeconds: number;
  readonly floor: boolean;
  readonly kit: readonly string[];
  readonly category: Drill['category'];
  readonly regions: readonly Region[];
  readonly temperature: number;
  /** How well it warms for what follows, 0–1; 0 where nothing asks for warming. */
  readonly warmth: number;
  readonly intensity: Drill['intensityClass'];
  /** An easy mobilising rung that may stand beside a working one of its ladder. */
  readonly prepares: boolean;
  readonly demand: number;
  /** Regions in one of which something else has to be served, for a drill that only an element speaks for; else empty. */
  readonly beside: readonly Region[];
  /** The action of those that follow which it comes nearest to; null when it rehearses none. */
  readonly rehearses: string | null;
  /** Benefit per weighted restriction index, match ≥ 0.4 only. */
  readonly benefit: readonly { need: number; value: number; match: number }[];
  /** Small bonus of weaker matches, or the cost of a mere filler. */
  readonly tie: number;
  readonly filler: boolean;
  readonly pinned: boolean;
  readonly open: OpenSide;
  readonly doseReason: Reason;
}

/** What may be chosen, and why the rest may not. */
export interface OptionSet {
  readonly options: readonly Option[];
  /** The rule that keeps each other drill out. */
  readonly ineligible: ReadonlyMap<string, Ineligible>;
}

/** Worth of a number of sets against the most that may be chosen; each further set adds less. */
function doseValue(sets: number, most: number): number {
  return (1 - BUILDER.setDecay ** sets) / (1 - BUILDER.setDecay ** most);
}

function categoryFactor(preferred: readonly string[], category: string): number {
  const place = preferred.indexOf(category);
  return place < 0 ? 0.8 : 1 - 0.05 * place;
}

interface Worth {
  readonly benefit: Option['benefit'];
  readonly weak: number;
}

function worthOf(
  context: RuleContext,
  weights: readonly WeightedRestriction[],
  drill: Drill,
  side: ItemSide,
  factorOf: (side: Side) => number,
): Worth {
  const benefit: { need: number; value: number; match: number }[] = [];
  let weak = 0;
  const away = context.general && nearestTag(context, drill) < BUILDER.coverMatch;
  const near = away ? BUILDER.awayFromAction : 1;
  weights.forEach((weighted, need) => {
    if (isOfAction(weighted)) return; // by how near the drill comes to what follows: forAction
    const match = drill.serves.find((s) => s.restriction === weighted.restriction)?.match ?? 0;
    if (match === 0 || !mayServe(drill, side, weighted)) return;
    if (match < BUILDER.coverMatch) {
      weak += match * weighted.weight * BUILDER.weakMatchBonus;
      return;
    }
    const preferred = context.reference.restrictions.get(weighted.restriction)?.preferredCategories ?? [];
    const pair = weights.some((w) => w.restriction === weighted.restriction && w.side !== weighted.side);
    const oneSided = weighted.side !== 'central' && !pair && !drill.unilateral;
    const value =
      weighted.weight *
      near *
      match *
      factorOf(weighted.side) *
      categoryFactor(preferred, drill.category) *
      (oneSided ? BUILDER.bilateralForOneSide : 1);
    benefit.push({ need, value, match });
  });
  return { benefit, weak };
}

function highestOpen(
  context: RuleContext,
  drill: Drill,
  side: ItemSide,
  usable: ReadonlyMap<string, OpenSide[]>,
): number {
  const ladder = context.reference.ladders.get(drill.ladder);
  const open =
    ladder?.drills.filter((id) => usable.get(id)?.some((o) => o.side === side && o.by !== 'pin')) ?? [];
  const best = open.at(-1);
  return best ? (context.reference.drills.get(best)?.level ?? drill.level) : drill.level;
}

/** What a drill is worth to what follows in a phase: rehearsing it, the later the better. */
function forAction(
  context: RuleContext,
  weights: readonly WeightedRestriction[],
  drill: Drill,
  phase: { readonly index: number; readonly of: number },
  factor: number,
): Option['benefit'] {
  const near = nearestAction(context.reference, drill, context.actions);
  const need = weights.findIndex(({ from }) => from === 'pattern');
  const weighted = weights[need];
  if (!near || near.tag < BUILDER.rehearses || !weighted) return [];
  const later = 0.5 + (0.5 * (phase.index + 1)) / phase.of;
  return [{ need, match: near.tag, value: weighted.weight * near.tag * later * factor }];
}

/** How well a drill warms for what follows. */
function warmthOf({ elements }: RuleContext, drill: Drill): number {
  return Math.max(0, ...elements.map(({ element }) => (element.part === 'warm' ? fitOf(element, drill) : 0)));
}

/** An element that a drill answers, as a need of the problem. */
interface Answered {
  readonly need: number;
  readonly match: number;
  readonly weight: number;
}

/**
 * Which elements each drill answers: the one that it fits best, so that one drill is not counted for everything; in a
 * short time a second that it fits as well, and any that no drill fits better than another.
 */
function elementsAnswered(
  { reference, minutes, request }: RuleContext,
  weights: readonly WeightedRestriction[],
  drills: readonly Drill[],
): (drill: Drill) => readonly Answered[] {
  const needs = weights.flatMap(({ from, restriction, weight }, need) => {
    const element = from === 'element' ? reference.elements.get(restriction) : undefined;
    return element ? [{ need, weight, element }] : [];
  });
  const all = new Map(
    drills.map((drill) => [
      drill.id,
      needs.flatMap(({ need, weight, element }): Answered[] => {
        const match = answerOf(request, element, drill);
        return match >= FIT.half ? [{ need, match, weight }] : [];
      }),
    ]),
  );
  const best = new Map(
    [...all].flatMap(([id, fits]) => {
      const [first] = [...fits].sort((a, b) => b.match - a.match || a.need - b.need);
      return first ? [[id, first.need] as const] : [];
    }),
  );
  const led = new Set(best.values());
  const shares = minutes < BUILDER.sharedBelowMinutes;
  return ({ id }) =>
    (all.get(id) ?? []).filter(
      ({ need, match }) => best.get(id) === need || !led.has(need) || (shares && match >= BUILDER.sharedFit),
    );
}

/** Fillers from where today's work is come first, and what warms more and is nearer to what follows. */
function fillerScore(context: RuleContext, drill: Drill): number {
  const near = drill.regions.primary.some((region) => context.regions.has(region)) ? 0.5 : 0;
  const rehearses = nearestTag(context, drill);
  return near + rehearses + drill.raisesTemperature * 0.15 - drill.demandIndex * 0.01;
}

function keepBestFillers(options: readonly Option[], context: RuleContext): Option[] {
  const byPhase = new Map<number, Map<string, number>>();
  for (const option of options) {
    if (!option.filler) continue;
    const drill = context.reference.drills.get(option.drill);
    const scores = byPhase.get(option.phase) ?? new Map<string, number>();
    if (drill) scores.set(option.drill, fillerScore(context, drill));
    byPhase.set(option.phase, scores);
  }
  const kept = new Set<string>();
  for (const [phase, scores] of byPhase) {
    [...scores.entries()]
      .sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))
      .slice(0, BUILDER.fillersPerPhase)
      .forEach(([drill]) => kept.add(`${phase}/${drill}`));
  }
  return options.filter(
    (option) => !option.filler || option.pinned || kept.has(`${option.phase}/${option.drill}`),
  );
}

/** Drops options that another option of the same drill, phase and side makes pointless: not cheaper, not better. */
function dropDominated(options: readonly Option[]): Option[] {
  const sum = (option: Option) => option.benefit.reduce((total, b) => total + b.value, 0);
  // What only fills or warms is wanted for its time, so a longer one is not pointless beside a shorter.
  const forTime = ({ filler, category, warmth }: Option) => filler || category === 'raise' || warmth > 0;
  const beats = (a: Option, b: Option) =>
    (forTime(b) ? a.seconds === b.seconds : a.seconds <= b.seconds) &&
    a.fatigue <= b.fatigue &&
    a.contacts <= b.contacts &&
    a.staticSeconds <= b.staticSeconds &&
    a.tie >= b.tie &&
    a.benefit.length >= b.benefit.length &&
    b.benefit.every((x) => a.benefit.some((y) => y.need === x.need && y.value >= x.value));
  const groups = new Map<string, Option[]>();
  for (const option of options) {
    const key = `${option.drill}/${option.phase}`;
    groups.set(key, [...(groups.get(key) ?? []), option]);
  }
  return [...groups.values()].flatMap((group) =>
    group.filter(
      (b, i) => !group.some((a, j) => i !== j && beats(a, b) && (!beats(b, a) || j < i || sum(a) > sum(b))),
    ),
  );
}

/** Sets to choose from: in a preparation strengthening and static stretching stay at one. */
function setsToTry(context: RuleContext, dose: DoseContext, drill: Drill): number[] {
  const smallDose =
    context.request.mode === 'prepare' && (drill.category === 'strengthen' || drill.category === 'stretch');
  return smallDose ? [1] : setsFor(dose, drill);
}

/** Bonus of a drill the request wants kept where it fits, or of another level of its ladder. */
function preferBonus(context: RuleContext, drill: Drill): number {
  const { prefer } = context.request;
  if (prefer.includes(drill.id)) return BUILDER.preferBonus;
  const ladder = context.reference.ladders.get(drill.ladder)?.drills ?? [];
  return prefer.some((id) => ladder.includes(id)) ? BUILDER.preferLadderBonus : 0;
}

/** The side whose weighted restrictions ask more of this drill, when the difference is worth a set of its own. */
function heavierSide(weights: readonly WeightedRestriction[], drill: Drill): 'left' | 'right' | null {
  const asked = { left: 0, right: 0 };
  for (const { restriction, side, weight } of weights) {
    const match = drill.serves.find((s) => s.restriction === restriction)?.match ?? 0;
    if (side !== 'central' && match >= BUILDER.coverMatch) asked[side] += weight * match;
  }
  const { left, right } = asked;
  if (left === 0 || right === 0 || Math.abs(left - right) < BUILDER.unevenFrom) return null;
  return left > right ? 'left' : 'right';
}

interface SetPlan {
  readonly count: number;
  /** Seconds of the one bout in which a drill warms; null for the amount of the dose. */
  readonly bout: number | null;
  /** This side gets one set more. */
  readonly extra: 'left' | 'right' | null;
}

/** Lengths of the one bout in which easy movement warms, where the drill's usual dose is what is due; else none. */
function boutsOf(dose: DoseContext, drill: Drill, side: ItemSide): number[] {
  const { measure, amount, sets } = drill.dose;
  const easy = drill.category === 'raise' && drill.intensityClass === 'low';
  if (!easy || measure !== 'seconds' || sets.default !== 1 || amount.max < BUILDER.boutFrom) return [];
  if (dosedItem(dose, drill, side, 1, null).reason.rule !== 'dose-default') return [];
  return BUILDER.bouts.filter((seconds) => seconds >= amount.min && seconds <= amount.max);
}

function setPlans(
  drill: Drill,
  side: ItemSide,
  sets: readonly number[],
  heavier: SetPlan['extra'],
  bouts: readonly number[],
): SetPlan[] {
  if (bouts.length > 0) return bouts.map((bout): SetPlan => ({ count: 1, bout, extra: null }));
  const even = sets.map((count): SetPlan => ({ count, bout: null, extra: null }));
  if (!heavier || side !== 'both' || !drill.unilateral) return even;
  // The other side goes one set below what both would get, never below the drill's own least.
  const uneven = sets
    .filter((count) => count - 1 >= Math.max(1, drill.dose.sets.min))
    .map((count): SetPlan => ({ count: count - 1, bout: null, extra: heavier }));
  return [...even, ...uneven];
}

function withExtraSet(item: RoutineItem, extra: SetPlan['extra']): RoutineItem {
  if (!extra) return item;
  const { sets, amount } = item;
  const perSide = { left: { sets, amount }, right: { sets, amount } };
  return { ...item, perSide: { ...perSide, [extra]: { sets: sets + 1, amount } } };
}

/** The longest that one drill may take (rulings: a quarter of the time; in a preparation three minutes). */
export function longestDrillSeconds(mode: Mode, minutes: number): number {
  const share = BUILDER.oneDrillShare * minutes * 60;
  if (mode !== 'prepare') return Math.max(BUILDER.oneDrillPrepare, share);
  return Math.max(BUILDER.oneDrillLeast, Math.min(share, BUILDER.oneDrillPrepare));
}

/** In a preparation what is easy comes first and what is hard comes last. */
function risingTie(context: RuleContext, drill: Drill, phase: number, phases: number): number {
  if (context.request.mode !== 'prepare' || phases < 2 || drill.category === 'raise') return 0;
  return BUILDER.rising * drill.demandIndex * ((2 * phase) / (phases - 1) - 1);
}

/** Near-maximal work ends a preparation only where the school wants it so, and nothing speaks against it. */
function isTooHard(context: RuleContext, drill: Drill, last: boolean): boolean {
  return (
    last &&
    context.request.mode === 'prepare' &&
    drill.intensityClass === 'high' &&
    !context.promised.includes(HARD_FINISH)
  );
}

/** Was the other side measured, and is it enough? Of soreness: nothing hurts there. */
function otherIsEnough(context: RuleContext, { restriction, side, region }: WeightedRestriction): boolean {
  const other = side === 'left' ? 'right' : 'left';
  const found = context.todaysFindings.find((f) => f.restriction === restriction && f.side === other);
  if (context.reference.restrictions.get(restriction)?.kind === 'load-tolerance')
    return !context.safety.dayRules.some((rule) => rule.region === region && rule.side === other);
  return found !== undefined && found.evidence.length > 0 && found.state === 'enough';
}

/**
 * The sides a drill is given to today: both, unless only one is open, or what it serves is short on one side and was
 * measured and is enough on the other.
 */
function sidesForToday(
  context: RuleContext,
  weights: readonly WeightedRestriction[],
  drill: Drill,
  open: readonly OpenSide[],
): readonly OpenSide[] {
  const both = open.find(({ side }) => side === 'both');
  if (!both || !drill.unilateral || context.request.pins.includes(drill.id)) return open;
  const served = weights.filter(
    ({ restriction, side }) =>
      side !== 'central' &&
      drill.serves.some((s) => s.restriction === restriction && s.match >= BUILDER.coverMatch),
  );
  const [first] = served;
  const oneSided =
    first !== undefined &&
    served.every((weighted) => weighted.side === first.side && otherIsEnough(context, weighted));
  return open.filter(({ side }) => side === (oneSided ? first.side : 'both'));
}

/** The share of a drill's load that falls on what hurts, where nothing forbids it. */
function soreLoad({ safety }: RuleContext, drill: Drill): number {
  return Math.max(0, ...safety.dayRules.map(({ region }) => loadOn(drill, region)));
}

/** Every way to include one drill, or why a usable drill ends up without any. */
function optionsOfDrill(
  context: RuleContext,
  dose: DoseContext,
  phases: readonly TodaysPhase[],
  weights: readonly WeightedRestriction[],
  drill: Drill,
  usable: ReadonlyMap<string, OpenSide[]>,
  reserve: ReadonlySet<string>,
  answered: readonly Answered[],
): Option[] | Ineligible {
  const pinned = context.request.pins.includes(drill.id);
  const fitting = phases
    .map((phase, index) => ({ phase, index }))
    .filter(({ phase }) => fitsPhase(context.reference, drill, phase));
  if (fitting.length === 0) {
    const kind = phases.some((phase) => phase.categories.includes(drill.category));
    return { rule: 'structure-phase', about: kind ? drill.position : drill.category };
  }
  const sets = setsToTry(context, dose, drill);
  const most = Math.max(...sets);
  const filler = isFiller(context, drill, reserve);
  const prefer = preferBonus(context, drill);
  const kept = pinned || context.request.prefer.includes(drill.id);
  const restores = context.restoring.has(drill.id);
  const heavier = heavierSide(weights, drill);
  const options: Option[] = [];
  const cap = longestDrillSeconds(context.request.mode, context.minutes);
  const near = nearestAction(context.reference, drill, context.actions);
  const warms = drill.category === 'raise' ? BUILDER.warmsNear * nearestTag(context, drill) : 0;
  const care = BUILDER.careCost * drillSafety(context.reference, drill, context.safety).handling.length;
  const sore = BUILDER.soreCost * soreLoad(context, drill);
  const foreign = foreignness(context, drill);
  let tooLong = false;
  let aboveMaximum = false;
  const open = sidesForToday(context, weights, drill, usable.get(drill.id) ?? []);
  for (const side of open) {
    const below =
      BUILDER.levelBelow ** Math.max(0, highestOpen(context, drill, side.side, usable) - drill.level);
    const bouts = boutsOf(dose, drill, side.side);
    for (const { count, bout, extra } of setPlans(drill, side.side, sets, heavier, bouts)) {
      const factorOf = (side: Side) => doseValue(side === extra ? count + 1 : count, most) * below;
      const { benefit, weak } = worthOf(context, weights, drill, side.side, factorOf);
      for (const { phase, index } of fitting) {
        const rehearsal = [
          ...forAction(context, weights, drill, { index, of: phases.length }, below),
          ...answered.map(({ need, match, weight }) => ({
            need,
            match,
            value: weight * match * below * doseValue(count, most),
          })),
        ];
        const serves = benefit.length + rehearsal.length > 0;
        const stranger = benefit.length === 0 && foreign > 0;
        if (!serves && !kept && !filler && !restores) continue;
        const { item: even, reason, fits } = dosedItem(dose, drill, side.side, count, phase.id);
        if (!fits && !kept) {
          aboveMaximum = true;
          continue;
        }
        const item = withExtraSet(bout === null ? even : { ...even, amount: bout }, extra);
        const seconds = itemSeconds(drill, item);
        if (seconds > cap && !pinned) {
          tooLong = true;
          continue;
        }
        if (isTooHard(context, drill, index === phases.length - 1) && !kept) continue;
        const halfSet = extra ? 0.5 : 0;
        options.push({
          drill: drill.id,
          ladder: drill.ladder,
          phase: index,
          item,
          seconds,
          fatigue: drill.fatigue * (count + halfSet),
          contacts: drill.dose.measure === 'contacts' ? item.amount * (count + halfSet) : 0,
          staticSeconds: drill.category === 'stretch' ? item.amount * (extra ? count + 1 : count) : 0,
          floor: isFloor(drill.position),
          kit: kitUsed(drill, context.request.kit),
          category: drill.category,
          regions: drill.regions.primary,
          temperature: drill.raisesTemperature,
          warmth: warmthOf(context, drill),
          intensity: drill.intensityClass,
          prepares: isPreparing(context.reference, drill),
          demand: drill.demandIndex,
          beside:
            stranger && !kept && !context.plays && foreign < BUILDER.foreignCost ? drill.regions.primary : [],
          rehearses: near && near.tag >= BUILDER.rehearses ? near.action : null,
          benefit: [...benefit, ...rehearsal],
          tie:
            prefer +
            weak +
            risingTie(context, drill, index, phases.length) +
            warms -
            care -
            sore -
            (context.unasked.has(drill.id) ? BUILDER.unaskedCost : 0) -
            (stranger ? foreign : 0) -
            (serves ? 0 : BUILDER.fillerCost * (1.2 - fillerScore(context, drill))),
          filler: !serves && !kept && !restores,
          pinned,
          open: side,
          doseReason:
            bout === null
              ? reason
              : {
                  rule: 'dose-one-bout',
                  min: drill.dose.amount.min,
                  max: drill.dose.amount.max,
                  amount: bout,
                },
        });
      }
    }
  }
  if (options.length > 0) return options;
  if (aboveMaximum) return { rule: 'above-maximum', about: drill.doseTest ?? drill.id };
  return { rule: tooLong ? 'too-long' : 'serves-nothing', about: drill.id };
}

/**
 * Every way to include every drill that may be used, sorted by drill id. Drills left out come with the rule that
 * keeps them out, for "why not".
 */
export function createOptions(
  context: RuleContext,
  dose: DoseContext,
  phases: readonly TodaysPhase[],
  weights: readonly WeightedRestriction[],
): OptionSet {
  const ineligible = new Map<string, Ineligible>();
  const usable = new Map<string, OpenSide[]>();
  const drills = [...context.reference.data.drills].sort((a, b) => (a.id < b.id ? -1 : 1));
  for (const drill of drills) {
    const pinned = context.request.pins.includes(drill.id);
    const rule = hardRule(context, drill) ?? (pinned ? null : softRule(context, drill));
    if (rule) {
      ineligible.set(drill.id, rule);
      continue;
    }
    const sides = openSides(context, drill, pinned);
    if (sides.open.length === 0) ineligible.set(drill.id, { rule: 'level', about: sides.closed ?? '' });
    else usable.set(drill.id, sides.open);
  }
  const reserve = rangesWithReserve(context);
  // Range that is there is not worked on; where nothing is short an end lets go of it all the same.
  const lets = context.request.mode === 'restore' && !context.todaysFindings.some(isOpen);
  const ready = drills.filter((drill) => usable.has(drill.id) && (lets || !mobilisesReserve(drill, reserve)));
  const answers = elementsAnswered(context, weights, ready);
  const patternOnly =
    context.request.mode === 'prepare' &&
    schoolOption(context.reference, context.standing.schools, 'activation-value') === 'pattern-only';
  const all: Option[] = [];
  for (const drill of drills) {
    if (!usable.has(drill.id)) continue;
    const found = optionsOfDrill(context, dose, phases, weights, drill, usable, reserve, answers(drill));
    if ('rule' in found) ineligible.set(drill.id, found);
    else all.push(...(patternOnly && drill.category === 'activate' ? found.map(activationDiscount) : found));
  }
  const options = dropDominated(keepBestFillers(all, context));
  const left = new Set(options.map((option) => option.drill));
  for (const { drill } of all)
    if (!left.has(drill)) ineligible.set(drill, { rule: 'other-fillers', about: drill });
  return { options, ineligible };
}

/** School `activation-value: pattern-only`: isolated activation is worth little beside a pattern drill. */
function activationDiscount(option: Option): Option {
  return { ...option, benefit: option.benefit.map((b) => ({ ...b, value: b.value * 0.3 })) };
}
