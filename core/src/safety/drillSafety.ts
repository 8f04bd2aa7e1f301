import { ageInYears } from '../domain/index.ts';
import type { Athlete, IsoDay, Region, RoutineItem } from '../domain/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import { dayRuleOf } from './dayRules.ts';
import type { DayRule } from './dayRules.ts';
import { activePrecautions, precautionsOfDrill } from './precautions.ts';
import type { ActivePrecaution } from './precautions.ts';
import { protocolGates, sidesLeftOpen } from './protocols.ts';
import type { ProtocolGate } from './protocols.ts';
import { topicsDueFor } from './gate.ts';
import { isBlocked, openBlocks } from './redFlags.ts';
import { setupForbidden } from './setup.ts';
import type { Block } from './redFlags.ts';

/** Under this age adult figures do not apply and youth limits do (editable). */
export const YOUTH_AGE = 16;

/** A rule that forbids a drill, with what it names; words/ turns it into a sentence. */
export interface Forbidden {
  readonly rule:
    'blocked-region' | 'precaution-exclude' | 'precaution-clearance' | 'protocol' | 'youth' | 'day-rule';
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
    dayRules: rules,
  };
}

/** The rule of the day as something that forbids: it names the region. */
function ofDay(rule: DayRule): Forbidden {
  return { rule: 'day-rule', about: rule.region };
}

/** Regions a drill uses: primary, secondary and the regions it loads. */
export function touchedRegions(drill: Drill): Set<Region> {
  return new Set<Region>([
    ...drill.regions.primary,
    ...drill.regions.secondary,
    ...drill.loadRegions.map((load) => load.region),
  ]);
}

/** Judges one drill by stop-and-refer signs, precautions, protocols and age. Pins and swaps never bypass it. */
export function drillSafety(reference: Reference, drill: Drill, state: SafetyState): DrillSafety {
  const forbidden: Forbidden[] = [];
  const touches = touchedRegions(drill);
  for (const region of touches) {
    if (isBlocked(state.blocks, region)) forbidden.push({ rule: 'blocked-region', about: region });
  }
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

/** A drill and side that an issued routine must not hold, with the rule it breaks. */
export interface SafetyFault {
  /** Place of the item; null when it is about the athlete, whatever the drill. */
  readonly index: number | null;
  readonly drill: string;
  readonly rule: Forbidden['rule'] | 'unknown-drill' | 'archived' | 'not-asked';
  readonly about: string;
}

/** What safety looks at in an item; the set-up where it is known. */
export type SafetyItem = Pick<RoutineItem, 'drill' | 'side'> & { readonly setup?: RoutineItem['setup'] };

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
    const drill = reference.drills.get(item.drill);
    if (!drill) return [{ index, drill: item.drill, rule: 'unknown-drill', about: item.drill }];
    const safety = drillSafety(reference, drill, state);
    const faults: SafetyFault[] = safety.forbidden.map((f) => ({ index, drill: drill.id, ...f }));
    const setup = setupForbidden(reference, item.setup ?? {}, state.precautions);
    if (setup && !faults.some((f) => f.about === setup.precaution))
      faults.push({ index, drill: drill.id, rule: 'precaution-exclude', about: setup.precaution });
    if (drill.archived) faults.push({ index, drill: drill.id, rule: 'archived', about: drill.id });
    const unasked = due.ofDrill.get(drill.id);
    if (unasked) faults.push({ index, drill: drill.id, rule: 'not-asked', about: unasked.title });
    const usesLeft = item.side !== 'right';
    const usesRight = item.side !== 'left';
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
