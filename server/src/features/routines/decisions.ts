import type { Decide, Decided } from '@yonder/core/contracts';
import { assessedAt } from '@yonder/core/assess';
import { sameJson } from '@yonder/core/domain';
import { applyVerdicts, decideProgress } from '@yonder/core/progress';
import type { Decision } from '@yonder/core/progress';
import type { IdentifiedItem } from '@yonder/core/routine';
import type { RowOf } from '../../db/schema.ts';
import type { Deps } from '../../deps.ts';
import { ApiProblem, refuse } from '../../http/problem.ts';
import { checkWorkingDay } from '../../work/days.ts';
import { idWithin } from '../../work/newId.ts';
import type { Unit } from '../../work/unit.ts';
import { assessRecord, loadRecord } from '../athletes/record.ts';
import { needAthlete } from '../athletes/stories.ts';
import { passDoor } from './door.ts';
import { routineRow, storeVersion } from './versions.ts';
import { reasonsOf } from './why.ts';

/** Keeps each verdict with the decision it is about and the reasons that were given for it. */
async function keepVerdicts(
  unit: Unit,
  routine: RowOf<'routines'>,
  input: Decide,
  decisionOf: (item: string) => Decision | undefined,
): Promise<void> {
  await unit.rows.decisions.insertAll(
    input.verdicts.map((verdict) => {
      const decision = decisionOf(verdict.item);
      return {
        id: idWithin(input.id, verdict.item),
        athleteId: routine.athleteId,
        routineId: routine.id,
        batchId: input.id,
        itemId: verdict.item,
        drill: decision?.drill ?? '',
        decision: decision?.decision ?? 'keep',
        reasons: [...(decision?.reasons ?? [])],
        verdict: verdict.verdict,
        instead: verdict.verdict === 'overruled' ? verdict.instead : null,
        reason: verdict.verdict === 'overruled' ? verdict.reason : null,
        decidedBy: unit.actor.name,
        decidedOn: input.on,
      };
    }),
  );
}

/** Throws when something else was shown than is proposed by now: nothing is stored as accepted that nobody saw. */
function checkShown({ verdicts }: Decide, decisionOf: (item: string) => Decision | undefined): void {
  const moved = verdicts.filter(({ item, shown }) => {
    const now = decisionOf(item);
    return shown && !(now?.decision === shown.decision && sameJson(now.next, shown.next));
  });
  if (moved.length === 0) return;
  const current = moved.map(({ item }) => {
    const { decision = 'keep', next = null } = decisionOf(item) ?? {};
    return { item, decision, next };
  });
  throw new ApiProblem('proposal-changed', { current });
}

/**
 * Takes the practitioner's verdicts on the core's own decisions (worked out anew here), stores them, and issues the
 * next version when anything changed. 409 when another version is in force by now, or what is proposed is not what was shown.
 */
export async function decide(deps: Deps, unit: Unit, athleteId: string, input: Decide): Promise<Decided> {
  checkWorkingDay('$.on', input.on, unit.today);
  await needAthlete(unit, athleteId, true);
  const record = await loadRecord(unit, athleteId, input.on);
  const asked = await unit.rows.routines.one({ id: input.routineId, athleteId });
  const current = record.routines.find((row) => row.occasion === asked?.occasion);
  if (!current || current.id !== input.routineId)
    throw new ApiProblem('version-conflict', { current: current ? routineRow(current) : null });
  const place = (item: string) => current.items.findIndex((own) => own.id === item);
  refuse(
    input.verdicts.flatMap((v, i) =>
      place(v.item) < 0 ? [{ path: `$.verdicts[${i}].item`, message: 'not an item of this routine' }] : [],
    ),
  );
  const assessment = assessedAt(await assessRecord(deps, unit, record), current.occasion);
  const { decisions } = decideProgress(assessment);
  checkShown(input, (item) => decisions[place(item)]);
  const verdicts = input.verdicts.map(({ item, shown: _shown, ...verdict }) => ({
    index: place(item),
    ...verdict,
  }));
  const items = applyVerdicts(assessment, decisions, verdicts) as IdentifiedItem[];
  if (items.length > 0) await passDoor(unit, record, items, input.on, { schools: current.request.schools });
  await keepVerdicts(unit, { ...current, athleteId }, input, (item) => decisions[place(item)]);
  if (items.length === 0 || sameJson(items, current.items)) return { routine: null };
  const { mode, structure, request, occasion, sections } = current;
  const version = {
    id: idWithin(input.id, 'version'),
    on: input.on,
    occasion,
    sections,
    mode,
    structure,
    request,
    items,
  };
  const reasons = reasonsOf(assessment, request, items);
  // What was issued against a rule with a reason goes on under that reason while its item does.
  const overrides = current.overrides.filter((own) => items.some((item) => item.id === own.item));
  const row = await storeVersion(unit, athleteId, assessment, {
    ...version,
    reasons,
    overrides,
    decidedBatch: input.id,
  });
  return { routine: routineRow(row) };
}

/** What verdicts came to, when they are sent again. */
export async function decidedBefore(unit: Unit, { id }: Decide): Promise<Decided> {
  const row = await unit.rows.routines.one({ decidedBatch: id });
  return { routine: row ? routineRow(row) : null };
}
