import { safetyOn } from '@yonder/core/assess';
import type { Assessment } from '@yonder/core/assess';
import { prepareBuild } from '@yonder/core/builder';
import { checkRoutine, needReason } from '@yonder/core/checks';
import type { Override, OverrideInput } from '@yonder/core/contracts';
import type { BuildRequest } from '@yonder/core/domain';
import type { IdentifiedItem } from '@yonder/core/routine';
import { routineSafetyFaults, openBlocks } from '@yonder/core/safety';
import type { SafetyItem } from '@yonder/core/safety';
import { nameOf, reasonText, ruleText } from '@yonder/core/words';
import { ApiProblem } from '../../http/problem.ts';
import type { Unit } from '../../work/unit.ts';
import { loadRecord } from '../athletes/record.ts';
import type { LoadedRecord } from '../athletes/record.ts';

interface DoorOptions {
  /** Options of schools chosen for the routine. */
  readonly schools?: Readonly<Record<string, string>>;
  /** The path of an item by its place. */
  readonly at?: (index: number) => string;
}

/**
 * The one door for every way a routine takes: issue, print, run, swap, decide. Runs the safety rules of the core as of
 * the working date and as of today: neither may forbid an item. Throws `blocked` or `safety-refused` with the path of
 * each item, which `at` names.
 */
export async function passDoor(
  unit: Unit,
  record: LoadedRecord,
  items: readonly SafetyItem[],
  on: string,
  { schools = {}, at = (index) => `$.items[${index}]` }: DoorOptions = {},
): Promise<void> {
  if (record.athlete.archivedOn !== null) throw new ApiProblem('archived');
  const { reference, painLimits } = await unit.practice();
  const practice = { reference, painLimits, schools: { ...record.case.schools, ...schools } };
  for (const day of new Set([on, unit.today])) {
    // What was measured since the working date binds as well.
    const { athlete, screenings, checkIns, diary } =
      day === record.case.today ? record.case : (await loadRecord(unit, record.athlete.id, day)).case;
    const { safety } = safetyOn(practice, { athlete, screenings, checkIns, diary }, day);
    const all = openBlocks(reference, athlete, day).find(
      (block) => block.region === 'all' && block.level !== 'P',
    );
    if (all) throw new ApiProblem('blocked', { detail: all.action });
    const faults = routineSafetyFaults(reference, items, athlete, day, safety.dayRules);
    if (faults.length === 0) continue;
    throw new ApiProblem('safety-refused', {
      errors: faults.map((fault) => ({
        path: fault.index === null ? '$' : at(fault.index),
        message: [
          ...(fault.drill ? [`${nameOf(reference, fault.drill)}: `] : []),
          ruleText(reference, fault.rule, fault.about),
        ].join(''),
      })),
    });
  }
}

/**
 * What a version goes against or was left as it is: each rule with who said why. Some rules may only be gone against with a
 * reason: throws `override-needed` with the path and the rule of each of those that has none.
 */
export function weighOverrides(
  assessment: Assessment,
  request: BuildRequest,
  items: readonly IdentifiedItem[],
  given: readonly OverrideInput[],
  by: string,
): Override[] {
  const checks = checkRoutine(prepareBuild(assessment, request), items).filter(
    ({ level }) => level !== 'stop',
  );
  const required = new Set(needReason(checks));
  const weighed = checks.map((check) => {
    const place = check.at.at(-1);
    const item = place === undefined ? null : (items[place]?.id ?? null);
    const reason = given.find((own) => own.rule === check.reason.rule && own.item === item);
    return { place, item, rule: check.reason, why: reason?.why ?? null, required: required.has(check) };
  });
  const open = weighed.filter((one) => one.why === null && one.required);
  if (open.length > 0)
    throw new ApiProblem('override-needed', {
      errors: open.map(({ place, rule }) => ({
        path: place === undefined ? '$' : `$.items[${place}]`,
        message: `${rule.rule}: ${reasonText(assessment.reference, rule)}`,
      })),
    });
  return weighed.flatMap(({ item, rule, why }) => (why === null ? [] : [{ item, rule, why, by }]));
}
