import type {
  IssueRoutine,
  ItemReasons,
  Override,
  Page,
  PageQuery,
  RoutineRow,
} from '@yonder/core/contracts';
import { occasionOf } from '@yonder/core/domain';
import type { Occasion } from '@yonder/core/domain';
import { routineSeconds } from '@yonder/core/dose';
import { caseFaults, itemsFaults } from '@yonder/core/formats';
import { hardenedIn } from '@yonder/core/progress';
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
import { backInForce } from './occasions.ts';
import { reasonsOf } from './why.ts';

/** A version as the API shows it. */
export function routineRow(row: RowOf<'routines'>): RoutineRow {
  const {
    id,
    occasion,
    sections,
    number,
    issuedOn,
    issuedBy,
    mode,
    structure,
    items,
    totalSeconds,
    findings,
    reasons,
  } = row;
  const { changes, overrides, request, ownDrills } = row;
  return {
    id,
    occasion,
    number,
    issuedOn,
    issuedBy,
    mode,
    structure,
    schools: request.schools,
    sections,
    items,
    totalSeconds,
    findings,
    reasons,
    changes,
    overrides,
    ownDrills,
  };
}

/** A page of an athlete's issued versions of all occasions, newest first. */
export async function listRoutines(
  unit: Unit,
  athleteId: string,
  page: PageQuery,
): Promise<Page<RoutineRow>> {
  await needAthlete(unit, athleteId);
  const [day = null, number = null, after = null] = cursorOf(page, 3) ?? [];
  const found = await unit.query<{ id: string }>(
    `SELECT id FROM routines WHERE practice_id = :practiceId AND athlete_id = :athleteId
       AND (:day IS NULL OR (issued_on, number, id) < (CAST(:day AS date), CAST(:number AS integer), CAST(:after AS uuid)))
     ORDER BY issued_on DESC, number DESC, id DESC LIMIT :limit`,
    { practiceId: unit.practiceId, athleteId, day, number, after, limit: page.limit + 1 },
  );
  const rows = await unit.rows.routines.all(
    { id: found.map((row) => row.id) },
    {
      sort: [
        ['issuedOn', 'DESC'],
        ['number', 'DESC'],
        ['id', 'DESC'],
      ],
    },
  );
  return pageOfRows(rows, page, (row) => [row.issuedOn, String(row.number), row.id], routineRow);
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
  readonly occasion: Occasion;
  readonly sections: RowOf<'routines'>['sections'];
  readonly mode: RoutineRow['mode'];
  readonly structure: string;
  readonly request: RowOf<'routines'>['request'];
  readonly items: readonly IdentifiedItem[];
  readonly reasons: readonly ItemReasons[];
  readonly overrides: readonly Override[];
  /** The verdicts it came from; null for one that was composed. */
  readonly decidedBatch: string | null;
}

/** Stores the next version of its occasion with what it answered, why each drill is in and what changed; the athlete must be held. */
export async function storeVersion(
  unit: Unit,
  athleteId: string,
  { reference, report }: Assessment,
  version: NewVersion,
): Promise<RowOf<'routines'>> {
  const { occasion, sections } = version;
  const newest = await newestOf(unit, athleteId, occasion);
  const before = newest?.items ?? [];
  await backInForce(unit, athleteId, occasion);
  const items = withOrigins(reference, before, version.items) as IdentifiedItem[];
  return unit.rows.routines.insert({
    id: version.id,
    athleteId,
    occasion,
    sections,
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
    hardened: hardenedIn(reference, newest, items, version.on),
    ownDrills: (await unit.practice()).figures.drills.filter(({ id }) =>
      items.some(({ drill }) => drill === id),
    ),
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

/** The newest version of an occasion, whenever it was issued; null when there is none. */
function newestOf(unit: Unit, athleteId: string, occasion: Occasion): Promise<RowOf<'routines'> | null> {
  return unit.rows.routines.one({ athleteId, occasion }, { sort: [['number', 'DESC']] });
}

/** Throws when a version would be older than the one before it. */
async function checkIssueDay(unit: Unit, athleteId: string, occasion: Occasion, on: string): Promise<void> {
  const newest = await newestOf(unit, athleteId, occasion);
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
  const occasion = occasionOf(input);
  await checkIssueDay(unit, athleteId, occasion, input.on);
  const record = await loadRecord(unit, athleteId, input.on);
  const { mode, request, items } = input;
  refuse(
    caseFaults(unit.reference, { ...record.case, request }).filter((f) => f.path.startsWith('$.request')),
  );
  await passDoor(unit, record, items, input.on, { schools: request.schools });
  const assessment = await assessRecord(deps, unit, record);
  const overrides = weighOverrides(assessment, { ...request, mode }, items, input.overrides, unit.actor.name);
  const reasons = reasonsOf(assessment, request, items);
  const version = { ...input, occasion, reasons, overrides, decidedBatch: null };
  const row = await storeVersion(unit, athleteId, assessment, version);
  await unit.rows.routine_drafts.drop({ athleteId, occasion });
  return routineRow(row);
}
