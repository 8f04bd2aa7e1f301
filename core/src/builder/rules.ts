import type { Assessment } from '../assess/index.ts';
import type { BuildRequest, ItemSide, Region, Side, Standing } from '../domain/index.ts';
import { isTendonHold } from '../dose/index.ts';
import { schoolOption } from '../findings/index.ts';
import type { Finding } from '../findings/index.ts';
import { levelState, START_RULE } from '../levels/index.ts';
import type { OpenedBy } from '../levels/index.ts';
import type { Barrier } from '../reasons/index.ts';
import { coversRestriction, kitWordsOf, missingKit, patternTag } from '../reference/index.ts';
import type { Drill, ReadinessElement, Reference } from '../reference/index.ts';
import { FIT, fitOf } from '../readiness/index.ts';
import type { WantedElement } from '../readiness/index.ts';
import { drillSafety } from '../safety/index.ts';
import { nearestAction } from './dayActions.ts';
import { leadSideOf } from './leadSide.ts';
import { BUILDER, MODE_TIMING } from './settings.ts';
import type { TodaysPhase } from './structures.ts';
import type { Promised } from './promises.ts';
import { isOpen } from './weights.ts';

/** Why a drill cannot be chosen: the rule and what it is about. */
export interface Ineligible {
  readonly rule: Barrier;
  readonly about: string;
}

/** A side on which a drill may be done, with how its level came to be open. */
export interface OpenSide {
  readonly side: ItemSide;
  readonly by: OpenedBy | 'pin';
  readonly confirm: boolean;
}

/** What the rules that keep drills out are judged on. */
export interface RuleContext extends Assessment {
  readonly request: BuildRequest;
  /** The findings that hold for the action of the day. */
  readonly todaysFindings: readonly Finding[];
  /** Regions whose drills of this week are near the limit the practitioner set: load-minutes and limit. */
  readonly nearLimit: ReadonlyMap<Region, { load: number; limit: number }>;
  readonly minutes: number;
  /** Nothing has been screened. */
  readonly general: boolean;
  /** What the methods chosen promise of the preparation. */
  readonly promised: readonly Promised[];
  /** What speaks against ending near maximal; null where nothing does. */
  readonly endsSoft: 'age' | 'breathing' | 'injury' | null;
  /** The actions that follow. */
  readonly actions: readonly string[];
  /** What the actions and the joints to look after ask for, most important first. */
  readonly elements: readonly WantedElement[];
  /** Games of feet prepare: of a child whom nothing hurts. */
  readonly plays: boolean;
  /** Regions that something of today asks for: the focus, else what is weighted. */
  readonly regions: ReadonlySet<Region>;
  /** Drills for which stop-and-refer questions would have to be answered first. */
  readonly unasked: ReadonlySet<string>;
  /** Graded drills for painful positions that are restored today. */
  readonly restoring: ReadonlySet<string>;
}

function schoolRule(context: RuleContext, drill: Drill): Ineligible | null {
  const option = (id: string) => schoolOption(context.reference, context.standing.schools, id);
  if (context.request.mode !== 'prepare') return null;
  // Long holds for a tendon that hurts are the tendon school's to allow, whatever the one on strength says.
  if (isTendonHold(context.doses.prepare, drill)) return null;
  if (drill.category === 'release' && option('release-first') === 'skip') {
    return { rule: 'school', about: 'release-first' };
  }
  if (
    drill.category === 'strengthen' &&
    (option('sequence-before-strength') === 'after' || drill.fatigue > 2)
  ) {
    return { rule: 'school', about: 'sequence-before-strength' };
  }
  if (drill.category === 'stretch' && option('static-stretch-before') === 'avoid') {
    return { rule: 'school', about: 'static-stretch-before' };
  }
  const tendonHold =
    drill.contraction === 'isometric-hold' &&
    drill.serves.some((s) => s.match >= BUILDER.coverMatch && s.restriction.endsWith('-irritability'));
  return tendonHold && option('tendon-isometrics') === 'none'
    ? { rule: 'school', about: 'tendon-isometrics' }
    : null;
}

function timingRule(context: RuleContext, drill: Drill): Ineligible | null {
  const { mode } = context.request;
  const cell = context.reference.doseCell(drill.category, mode);
  if (cell.use === 'not-offered') return { rule: 'mode', about: mode };
  // Static stretching and strengthening before activity are the school's to allow, whatever their timing tag says.
  const bySchool = mode === 'prepare' && (drill.category === 'stretch' || drill.category === 'strengthen');
  if (!bySchool && !drill.timing.includes(MODE_TIMING[mode]))
    return { rule: 'timing', about: MODE_TIMING[mode] };
  return null;
}

/** Does the school hold extra conditioning back for a region this drill loads? */
function loadRule(context: RuleContext, drill: Drill): Ineligible | null {
  const conditioning = drill.category === 'strengthen' || drill.category === 'neuromuscular';
  if (!conditioning || drill.intensityClass === 'low') return null;
  if (schoolOption(context.reference, context.standing.schools, 'conditioning-near-limit') !== 'hold-back')
    return null;
  const near = drill.loadRegions.find(({ region }) => context.nearLimit.has(region));
  return near ? { rule: 'load-near-limit', about: near.region } : null;
}

/** Rules that a pin does not lift either: safety, kit, position, timing, school. */
export function hardRule(context: RuleContext, drill: Drill): Ineligible | null {
  const { request } = context;
  const safety = drillSafety(context.reference, drill, context.safety);
  const first = safety.forbidden[0];
  if (first) return first;
  if (drill.archived) return { rule: 'archived', about: drill.id };
  const missing = missingKit(drill, request.kit);
  if (missing) return { rule: 'kit', about: missing };
  if (request.excludePositions.includes(drill.position)) return { rule: 'position', about: drill.position };
  if (request.space === 'mat' && drill.space === 'lane') return { rule: 'space', about: drill.space };
  return timingRule(context, drill) ?? schoolRule(context, drill);
}

/** New to training, and nothing known that is done every week. */
export function isNewcomer(standing: Pick<Standing, 'athlete'>): boolean {
  const { trainingYears, exposure } = standing.athlete;
  return trainingYears < START_RULE.trainingYears && exposure.length === 0;
}

/** Is it the rehearsal of an action that does not follow today? The all-purpose one is for a practitioner to name. */
function isOtherAction(context: RuleContext, drill: Drill): boolean {
  if (!context.reference.ladders.get(drill.ladder)?.rehearsal) return false;
  const near = nearestAction(context.reference, drill, context.actions);
  return context.request.mode !== 'prepare' || !near || near.tag <= BUILDER.rehearses;
}

/** With joints to look after today only these, what warms the whole body, what rehearses the action, and calming down. */
function isOutOfFocus(context: RuleContext, drill: Drill): boolean {
  const { focus, mode } = context.request;
  if (focus.length === 0 || drill.category === 'raise' || drill.regions.primary.includes('whole-body'))
    return false;
  if (mode === 'prepare' && context.reference.ladders.get(drill.ladder)?.rehearsal) return false;
  return !drill.regions.primary.some((region) => focus.includes(region));
}

/** Rules that a practitioner's pin lifts: bans, dislikes, a helper, a busy week, the ladder level. */
export function softRule(context: RuleContext, drill: Drill): Ineligible | null {
  if (context.request.bans.includes(drill.id)) return { rule: 'ban', about: drill.id };
  if (context.standing.athlete.dislikes.includes(drill.id)) return { rule: 'disliked', about: drill.id };
  if (drill.needsPartner && !context.request.partner) return { rule: 'needs-partner', about: drill.id };
  if (isOtherAction(context, drill)) return { rule: 'other-action', about: drill.ladder };
  if (
    context.plays &&
    context.reference.data.readiness.youth.exclude.includes(drill.id) &&
    !context.todaysFindings.some((found) => isOpen(found) && coversRestriction(drill, found.restriction))
  )
    return { rule: 'games-instead', about: drill.id };
  if (isOutOfFocus(context, drill)) return { rule: 'focus', about: drill.regions.primary[0] ?? 'whole-body' };
  return loadRule(context, drill);
}

/**
 * Sides a drill can be given to: both (or central) always together for drills that are not unilateral, and the leading
 * side alone for what rehearses an action that has one.
 */
export function openSides(
  context: RuleContext,
  drill: Drill,
  pinned: boolean,
): { open: OpenSide[]; closed: string | null } {
  const { sides } = drillSafety(context.reference, drill, context.safety);
  const lead = leadSideOf(context.reference, context.standing, drill);
  const wanted: ItemSide[] = !drill.unilateral
    ? ['both']
    : lead !== null
      ? sides[lead]
        ? [lead]
        : []
      : [
          ...(sides.left && sides.right ? (['both'] as const) : []),
          ...(sides.left ? (['left'] as const) : []),
          ...(sides.right ? (['right'] as const) : []),
        ];
  let closed: string | null = null;
  const open = wanted.flatMap((side): OpenSide[] => {
    const state = levelState(context, drill, side);
    if (state.open) return [{ side, by: state.by, confirm: state.confirm }];
    closed = state.because;
    return pinned ? [{ side, by: 'pin', confirm: true }] : [];
  });
  return { open, closed };
}

/** The rule that not even a pin lifts, for one drill of a prepared build; null when there is none. */
export const hardRuleOf = (prepared: { rules: RuleContext }, drill: Drill) => hardRule(prepared.rules, drill);
/** The rule that a pin lifts; null when there is none. */
export const softRuleOf = (prepared: { rules: RuleContext }, drill: Drill) => softRule(prepared.rules, drill);
/** Sides on which a drill is open, with how it came to be. */
export const openSidesOf = (prepared: { rules: RuleContext }, drill: Drill) =>
  openSides(prepared.rules, drill, false).open;

/** May a drill stand in a phase of the structure? */
export function fitsPhase(reference: Reference, drill: Drill, phase: TodaysPhase): boolean {
  const near = phase.onlyActions ? nearestAction(reference, drill, phase.onlyActions) : null;
  if (phase.onlyActions && (!near || near.tag < BUILDER.rehearses)) return false;
  // The pattern itself, done slowly, ends a preparation as well as a fast drill does.
  const asAction = near !== null && near.tag >= BUILDER.isTheAction && drill.category === 'stabilise';
  return (
    (phase.categories.includes(drill.category) || asAction || phase.also?.has(drill.id) === true) &&
    (!phase.onlyLadders || phase.onlyLadders.includes(drill.ladder)) &&
    !phase.excludeLadders?.includes(drill.ladder) &&
    (!phase.onlyRegions || drill.regions.primary.some((region) => phase.onlyRegions?.includes(region))) &&
    (!phase.onlyPositions || phase.onlyPositions.includes(drill.position)) &&
    (!phase.onlyContraction || phase.onlyContraction.includes(drill.contraction)) &&
    (phase.maxFatigue === undefined || drill.fatigue <= phase.maxFatigue)
  );
}

/** Range restrictions that were measured and have reserve on every measured side: nothing to mobilise there. */
export function rangesWithReserve(context: RuleContext): Set<string> {
  const bySides = new Map<string, { side: Side; enough: boolean }[]>();
  for (const finding of context.todaysFindings) {
    const kind = context.reference.restrictions.get(finding.restriction)?.kind;
    if (kind !== 'range-limit') continue;
    const rows = bySides.get(finding.restriction) ?? [];
    rows.push({ side: finding.side, enough: finding.state === 'enough' });
    bySides.set(finding.restriction, rows);
  }
  return new Set(
    [...bySides.entries()].filter(([, rows]) => rows.every((row) => row.enough)).map(([id]) => id),
  );
}

/** Does a drill work on a range that has reserve already? */
export function mobilisesReserve({ category, serves }: Drill, reserve: ReadonlySet<string>): boolean {
  const range = category === 'mobilise' || category === 'stretch';
  return range && serves.some((s) => s.match >= BUILDER.coverMatch && reserve.has(s.restriction));
}

/** How near a drill comes to what follows, mobility included. */
export function nearestTag(context: RuleContext, drill: Drill): number {
  return Math.max(0, ...context.actions.map((action) => patternTag(context.reference, drill, action)));
}

/** How well a drill answers an element in a build, 0–1: one of its own is for strength, and what only wakes answers in part. */
export function answerOf(
  { mode }: Pick<BuildRequest, 'mode'>,
  element: ReadinessElement,
  drill: Drill,
): number {
  const wakes = mode === 'build' && element.part === 'wake' && drill.category !== 'strengthen';
  return fitOf(element, drill) * (wakes ? BUILDER.wakingInBuild : 1);
}

/** Does it come near enough to one of the actions that follow? */
function rehearsesToday({ reference, actions }: RuleContext, drill: Drill): boolean {
  return actions.some((action) => patternTag(reference, drill, action) >= BUILDER.rehearses);
}

/**
 * How far a drill that serves no restriction is from what today is about, as a cost: nothing where it comes near what
 * follows or works a joint to look after, little where something is asked for in its region, much where only an element
 * speaks for it.
 */
export function foreignness(context: RuleContext, drill: Drill): number {
  const { category, regions } = drill;
  const prepares = context.request.mode === 'prepare' && context.actions.length > 0;
  if (!prepares || context.elements.length === 0 || category === 'raise') return 0;
  const { primary } = regions;
  const { focus } = context.request;
  if (primary.some((region) => region === 'whole-body' || focus.includes(region))) return 0;
  if (context.elements.some(({ element, of }) => of === 'joint' && fitOf(element, drill) >= FIT.half))
    return 0;
  if (rehearsesToday(context, drill)) return 0;
  // A child's games are of the whole child, whatever follows.
  const beside = context.plays || primary.some((region) => context.regions.has(region));
  return beside ? BUILDER.besideCost : BUILDER.foreignCost;
}

/** Does something of today ask for it: the joints to look after, what follows, or warming the whole body? */
function isAskedFor(context: RuleContext, drill: Drill): boolean {
  if (drill.category === 'raise' || drill.regions.primary.includes('whole-body')) return true;
  if (drill.regions.primary.some((region) => context.request.focus.includes(region))) return true;
  // A range that an action needs first is asked for by it, although opening it rehearses nothing.
  return rehearsesToday(context, drill);
}

/**
 * A phase filler is general and dynamic, needs no kit unless it warms, never mobilises a range that has reserve, and comes
 * from where today's work is.
 */
export function isFiller(context: RuleContext, drill: Drill, reserveRanges: ReadonlySet<string>): boolean {
  if (!isAskedFor(context, drill)) return false;
  // Kneading and calming are for what they serve; they fill no time before activity.
  if (drill.category === 'release' && context.request.mode === 'prepare') return false;
  // Before activity a quick drill that has nothing to do with what follows fills nothing.
  if (
    drill.category === 'neuromuscular' &&
    context.request.mode === 'prepare' &&
    !rehearsesToday(context, drill)
  )
    return false;
  const dynamic =
    drill.contraction === 'dynamic' || drill.contraction === 'ballistic' || drill.category === 'release';
  const moving = drill.category === 'raise' || drill.category === 'neuromuscular';
  const plain = moving || kitWordsOf(drill).length === 0;
  return dynamic && plain && drill.category !== 'stretch' && !mobilisesReserve(drill, reserveRanges);
}

/** An easy mobilising rung, and the first rung of an action's rehearsal: the next one may follow it. */
export function isPreparing(reference: Reference, drill: Drill): boolean {
  if (reference.ladders.get(drill.ladder)?.rehearsal) return drill.level === 1;
  return drill.category === 'mobilise' && drill.demandIndex <= BUILDER.preparesDemand;
}
