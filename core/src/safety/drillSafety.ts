import { ageInYears } from '../domain/index.ts';
import type { Athlete, IsoDay, Region, RoutineItem } from '../domain/index.ts';
import { isLine, jolts, kneels } from '../reference/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import { dayRuleOf } from './dayRules.ts';
import type { DayRule } from './dayRules.ts';
import { activePrecautions } from './active.ts';
import type { ActivePrecaution } from './active.ts';
import { precautionsOfDrill } from './precautions.ts';
import { protocolGates, sidesLeftOpen } from './protocols.ts';
import type { ProtocolGate } from './protocols.ts';
import { topicsDueFor } from './gate.ts';
import { impactClosed, isBlocked, openBlocks } from './redFlags.ts';
import { beyondLimits } from './limits.ts';
import type { Block } from './redFlags.ts';

/** Under this age adult figures do not apply and youth limits do (editable). */
export const YOUTH_AGE = 16;

/** A rule that forbids a drill, with what it names; words/ turns it into a sentence. */
export interface Forbidden {
  readonly rule:
    | 'blocked-region'
    | 'impact-closed'
    | 'precaution-exclude'
    | 'precaution-clearance'
    | 'protocol'
    | 'youth'
    | 'day-rule'
    | 'referred';
  readonly about: string;
}

/** What a precaution, protocol or age says about a drill. */
export interface DrillSafety {
  readonly forbidden: readonly Forbidden[];
  readonly handling: readonly { precaution: string; text: string }[];
  /** Sides on which it may be done; both false when a protocol or a precaution closes the drill. */
  readonly sides: { left: boolean; right: boolean };
  /** What closes a side beside a protocol: a precaution or a rule of the day. */
  readonly closed: { readonly left: Forbidden | null; readonly right: Forbidden | null };
}

/** Everything that binds today for an athlete, worked out once. */
export interface SafetyState {
  readonly blocks: readonly Block[];
  readonly precautions: readonly ActivePrecaution[];
  readonly gates: readonly ProtocolGate[];
  readonly age: number;
  /** An open sign closes impact and hard work everywhere. */
  readonly impactClosed: boolean;
  /** What holds today because it hurts. */
  readonly dayRules: readonly DayRule[];
}

/** Stop signs, precautions, protocols, age and the rules of the day, judged once for everything that asks. */
export function safetyState(
  reference: Reference,
  athlete: Athlete,
  today: IsoDay,
  rules: readonly DayRule[] = [],
): SafetyState {
  return {
    blocks: openBlocks(reference, athlete, today),
    precautions: activePrecautions(athlete, today),
    gates: protocolGates(reference, athlete, today),
    age: ageInYears(athlete.birthDate, today),
    impactClosed: impactClosed(reference, athlete, today),
    dayRules: rules,
  };
}

/** The rule of the day as something that forbids: it names the region. What was referred is more than a day's rule. */
function ofDay(rule: DayRule): Forbidden {
  return { rule: rule.referred.length > 0 ? 'referred' : 'day-rule', about: rule.region };
}

/** Regions a drill uses: primary, secondary, the regions it loads, and the knee it kneels on. */
export function touchedRegions(drill: Drill): Set<Region> {
  return new Set<Region>([
    ...drill.regions.primary,
    ...drill.regions.secondary,
    ...drill.loadRegions.map((load) => load.region),
    ...(kneels(drill) ? (['knee'] as const) : []),
  ]);
}

/** Judges one drill by stop-and-refer signs, precautions, protocols and age. Pins and swaps never bypass it. */
export function drillSafety(reference: Reference, drill: Drill, state: SafetyState): DrillSafety {
  const forbidden: Forbidden[] = [];
  const touches = touchedRegions(drill);
  for (const region of touches) {
    if (isBlocked(state.blocks, region)) forbidden.push({ rule: 'blocked-region', about: region });
  }
  if (state.impactClosed && (jolts(drill) || drill.intensityClass === 'high'))
    forbidden.push({ rule: 'impact-closed', about: 'whole-body' });
  const byPrecaution = precautionsOfDrill(reference, drill, state.precautions);
  for (const { precaution, severity } of byPrecaution.forbidden) {
    forbidden.push({
      rule: severity === 'clearance' ? 'precaution-clearance' : 'precaution-exclude',
      about: precaution,
    });
  }
  const byDay = dayRuleOf(reference, state.dayRules, drill);
  if (byDay.forbidden) forbidden.push(ofDay(byDay.forbidden));
  const closedOn = (side: 'left' | 'right'): Forbidden | null => {
    const precaution = byPrecaution.closed[side];
    if (precaution !== null) return { rule: 'precaution-clearance', about: precaution };
    const rule = byDay.closed[side];
    return rule ? ofDay(rule) : null;
  };
  const closed = { left: closedOn('left'), right: closedOn('right') };
  const byProtocol = sidesLeftOpen(state.gates, drill, touches);
  const sides = {
    left: byProtocol.left && closed.left === null,
    right: byProtocol.right && closed.right === null,
  };
  const both = closed.left ?? closed.right;
  if (!sides.left && !sides.right && both) forbidden.push(both);
  else if (!sides.left && !sides.right)
    forbidden.push({ rule: 'protocol', about: drill.regions.primary[0] ?? 'whole-body' });
  if (state.age < YOUTH_AGE && !drill.youthOk) forbidden.push({ rule: 'youth', about: String(YOUTH_AGE) });
  return { forbidden, handling: byPrecaution.handling, sides, closed };
}

/** What closes a drill for an item's side: on every side it uses, on one of two, or not at all. A lasting rule comes first. */
export function closedFor(
  safety: DrillSafety,
  side: RoutineItem['side'],
): { readonly rule: Forbidden; readonly open: 'left' | 'right' | null } | null {
  const lasting = (all: readonly (Forbidden | null)[]) => {
    const known = all.filter((one) => one !== null);
    return known.find(({ rule }) => rule !== 'day-rule') ?? known[0] ?? null;
  };
  const whole = lasting(safety.forbidden);
  if (whole) return { rule: whole, open: null };
  const uses = (['left', 'right'] as const).filter(
    (one) => side === one || side === 'both' || side === 'central',
  );
  const shut = uses.filter((one) => !safety.sides[one]);
  if (shut.length === 0) return null;
  const rule = lasting(shut.map((one) => safety.closed[one] ?? { rule: 'protocol', about: one }));
  const open = uses.find((one) => safety.sides[one]) ?? null;
  return rule && { rule, open };
}

/** A drill and side that an issued routine must not hold, with the rule it breaks. */
export interface SafetyFault {
  /** Place of the item; null when it is about the athlete, whatever the drill. */
  readonly index: number | null;
  readonly drill: string;
  readonly rule: Forbidden['rule'] | 'unknown-drill' | 'archived' | 'not-asked';
  readonly about: string;
}

/** What safety looks at in an item; set-up and dose where they are known. */
export type SafetyItem = Pick<RoutineItem, 'drill' | 'side'> &
  Partial<Pick<RoutineItem, 'setup' | 'amount' | 'holdSeconds' | 'perSide' | 'words' | 'note' | 'caution'>>;

/** Words of a part, plainly: small letters, single spaces, one of each. */
const plain = (text: string) =>
  ` ${text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, ' ')
    .trim()
    .replace(/s\b/g, '')} `;

/** Drills that a part in own words names, and what forbids them today: words do not walk around a rule. */
function namedInWords(
  reference: Reference,
  item: SafetyItem,
  state: SafetyState,
): (Forbidden & { drill: string })[] {
  // A warning names what is not done.
  if (item.caution) return [];
  const said = plain(`${item.words ?? ''} ${item.note ?? ''}`);
  if (said.trim() === '') return [];
  return reference.data.drills
    .filter(({ name }) => said.includes(plain(name)))
    .flatMap((drill) => {
      const [first] = drillSafety(reference, drill, state).forbidden;
      return first ? [{ drill: drill.id, ...first }] : [];
    });
}

/** Checks the items of a routine against everything that binds today; empty when it may be issued. */
export function routineSafetyFaults(
  reference: Reference,
  items: readonly SafetyItem[],
  athlete: Athlete,
  today: IsoDay,
  rules: readonly DayRule[] = [],
): SafetyFault[] {
  const state = safetyState(reference, athlete, today, rules);
  const due = topicsDueFor(
    reference,
    athlete,
    items.map((item) => item.drill),
    today,
  );
  const general = due.general.map((topic): SafetyFault => ({
    index: null,
    drill: '',
    rule: 'not-asked',
    about: topic.title,
  }));
  const ofItems = items.flatMap((item, index): SafetyFault[] => {
    if (isLine(item.drill))
      return namedInWords(reference, item, state).map((f) => ({
        index,
        drill: f.drill,
        rule: f.rule,
        about: f.about,
      }));
    const drill = reference.drills.get(item.drill);
    if (!drill) return [{ index, drill: item.drill, rule: 'unknown-drill', about: item.drill }];
    const safety = drillSafety(reference, drill, state);
    const faults: SafetyFault[] = safety.forbidden.map((f) => ({ index, drill: drill.id, ...f }));
    const setup = beyondLimits(reference, drill, item, state.precautions);
    if (setup && !faults.some((f) => f.about === setup.precaution))
      faults.push({ index, drill: drill.id, rule: 'precaution-exclude', about: setup.precaution });
    if (drill.archived) faults.push({ index, drill: drill.id, rule: 'archived', about: drill.id });
    const unasked = due.ofDrill.get(drill.id);
    if (unasked) faults.push({ index, drill: drill.id, rule: 'not-asked', about: unasked.title });
    const usesLeft = item.side !== 'right' || (item.perSide?.left.sets ?? 0) > 0;
    const usesRight = item.side !== 'left' || (item.perSide?.right.sets ?? 0) > 0;
    const closed = (usesLeft && !safety.sides.left) || (usesRight && !safety.sides.right);
    const own = (usesLeft ? safety.closed.left : null) ?? (usesRight ? safety.closed.right : null);
    if (closed && own) {
      if (!faults.some((f) => f.about === own.about)) faults.push({ index, drill: drill.id, ...own });
    } else if (closed && !faults.some((f) => f.rule === 'protocol')) {
      faults.push({
        index,
        drill: drill.id,
        rule: 'protocol',
        about: usesLeft && !safety.sides.left ? 'left' : 'right',
      });
    }
    return faults;
  });
  return [...general, ...ofItems];
}
