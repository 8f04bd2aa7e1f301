import type {
  IssueRoutine,
  ItemReasons,
  Override,
  Page,
  PageQuery,
  RoutineRow,
} from '@yonder/core/contracts';
import { routineSeconds } from '@yonder/core/dose';
import { caseFaults, itemsFaults } from '@yonder/core/formats';
import { routineChanges, withOrigins } from '@yonder/core/routine';
import type { IdentifiedItem } from '@yonder/core/routine';
import type { Assessment } from '@yonder/core/assess';
import type { RowOf } from '../../db/schema.ts';
import type { Deps } from '../../deps.ts';
import { cursorOf, pageOfRows } from '../../http/page.ts';
import { refuse } from '../../http/problem.ts';
import { checkWorkingDay } from '../../work/days.ts';
import type { Unit } from '../../work/unit.ts';
import { assessRecord, loadRecord } from '../athletes/record.ts';
import { needAthlete } from '../athletes/stories.ts';
import { passDoor, weighOverrides } from './door.ts';
import { reasonsOf } from './why.ts';

/** A version as the API shows it. */
export function routineRow(row: RowOf<'routines'>): RoutineRow {
  const { id, number, issuedOn, issuedBy, mode, structure, items, totalSeconds, findings, reasons } = row;
  const { changes, overrides, request } = row;
  return {
    id,
    number,
    issuedOn,
    issuedBy,
    mode,
    structure,
    schools: request.schools,
    items,
    totalSeconds,
    findings,
    reasons,
    changes,
    overrides,
  };
}

/** A page of an athlete's issued versions, newest first. */
export async function listRoutines(
  unit: Unit,
  athleteId: string,
  page: PageQuery,
): Promise<Page<RoutineRow>> {
  await needAthlete(unit, athleteId);
  const before = Number(cursorOf(page, 1)?.[0] ?? Number.MAX_SAFE_INTEGER);
  const numbers = await unit.query<{ id: string }>(
    `SELECT id FROM routines WHERE practice_id = :practiceId AND athlete_id = :athleteId AND number < :before
     ORDER BY number DESC LIMIT :limit`,
    { practiceId: unit.practiceId, athleteId, before: before || 0, limit: page.limit + 1 },
  );
  const rows = await unit.rows.routines.all(
    { id: numbers.map((row) => row.id) },
    { sort: [['number', 'DESC']] },
  );
  return pageOfRows(rows, page, (row) => [String(row.number)], routineRow);
}

/** A routine of the practice; 404 otherwise. */
export async function needRoutine(unit: Unit, id: string): Promise<RowOf<'routines'>> {
  const routine = await unit.rows.routines.need({ id }, 'Routine');
  unit.concerns(routine.athleteId);
  return routine;
}

/** What a version is issued from. */
export interface NewVersion {
  readonly id: string;
  readonly on: string;
  readonly mode: RoutineRow['mode'];
  readonly structure: string;
  readonly request: RowOf<'routines'>['request'];
  readonly items: readonly IdentifiedItem[];
  readonly reasons: readonly ItemReasons[];
  readonly overrides: readonly Override[];
  /** The verdicts it came from; null for one that was composed. */
  readonly decidedBatch: string | null;
}

/** Stores the next version with what it answered, why each drill is in and what changed; the athlete must be held. */
export async function storeVersion(
  unit: Unit,
  athleteId: string,
  { reference, report }: Assessment,
  version: NewVersion,
): Promise<RowOf<'routines'>> {
  const newest = await unit.rows.routines.one({ athleteId }, { sort: [['number', 'DESC']] });
  const before = newest?.items ?? [];
  const items = withOrigins(reference, before, version.items) as IdentifiedItem[];
  return unit.rows.routines.insert({
    id: version.id,
    athleteId,
    number: (newest?.number ?? 0) + 1,
    mode: version.mode,
    structure: version.structure,
    issuedOn: version.on,
    issuedBy: unit.actor.name,
    items,
    totalSeconds: routineSeconds(reference, items),
    request: version.request,
    findings: report.findings
      .filter((f) => f.severity > 0)
      .map(({ restriction, side, severity, priority, state }) => ({
        restriction,
        side,
        severity,
        priority,
        state,
      })),
    reasons: [...version.reasons],
    overrides: [...version.overrides],
    changes: newest ? routineChanges(reference, before, items) : [],
    decidedBatch: version.decidedBatch,
  });
}

/** Faults of a version in itself: unknown drills, set-ups and structures, an id given twice. */
function checkVersion(reference: Assessment['reference'], input: IssueRoutine): void {
  const ids = input.items.map((item) => item.id);
  refuse([
    ...itemsFaults(reference, input.items),
    ...ids.flatMap((id, i) =>
      ids.indexOf(id) < i ? [{ path: `$.items[${i}].id`, message: 'stands for another item already' }] : [],
    ),
    ...(reference.structures.has(input.structure)
      ? []
      : [{ path: '$.structure', message: `unknown structure "${input.structure}"` }]),
  ]);
}

/** Throws when a version would be older than the one before it. */
async function checkIssueDay(unit: Unit, athleteId: string, on: string): Promise<void> {
  const newest = await unit.rows.routines.one({ athleteId }, { sort: [['number', 'DESC']] });
  const before = newest && on < newest.issuedOn;
  refuse(
    before ? [{ path: '$.on', message: `before version ${newest.number}, issued ${newest.issuedOn}` }] : [],
  );
}

/** Issues the next version after running the safety rules again; whatever the client sent, they win. */
export async function issueRoutine(
  deps: Deps,
  unit: Unit,
  athleteId: string,
  input: IssueRoutine,
): Promise<RoutineRow> {
  checkWorkingDay('$.on', input.on, unit.today);
  const { reference } = await unit.practice();
  checkVersion(reference, input);
  await needAthlete(unit, athleteId, true);
  await checkIssueDay(unit, athleteId, input.on);
  const record = await loadRecord(unit, athleteId, input.on);
  const { mode, request, items } = input;
  refuse(
    caseFaults(unit.reference, { ...record.case, request }).filter((f) => f.path.startsWith('$.request')),
  );
  await passDoor(unit, record, items, input.on, { schools: request.schools });
  const assessment = await assessRecord(deps, unit, record);
  const overrides = weighOverrides(assessment, { ...request, mode }, items, input.overrides, unit.actor.name);
  const reasons = reasonsOf(assessment, request, items);
  const version = { ...input, reasons, overrides, decidedBatch: null };
  const row = await storeVersion(unit, athleteId, assessment, version);
  await unit.rows.routine_drafts.drop({ athleteId });
  return routineRow(row);
}
