import { assess, recordOfCase } from '@yonder/core/assess';
import type { Assessment } from '@yonder/core/assess';
import { OCCASIONS } from '@yonder/core/domain';
import type { Athlete, Case, Placement } from '@yonder/core/domain';
import { renewedItem } from '@yonder/core/formats';
import type { Reference } from '@yonder/core/reference';
import { athleteSchema, caseSchema } from '@yonder/core/schemas';
import type { RowOf } from '../../db/schema.ts';
import type { Deps } from '../../deps.ts';
import { notFound } from '../../http/problem.ts';
import { optionsOf } from '../../work/practice.ts';
import type { PracticeSettings } from '../../work/practice.ts';
import type { Unit } from '../../work/unit.ts';
import { athleteRow, only, placementRow } from './rows.ts';
import type { Story } from './rows.ts';
import { groupBy, loadStories } from './stories.ts';

/** An athlete's whole record as a case, with the routines in force in the order of their occasions. */
export interface LoadedRecord {
  readonly athlete: RowOf<'athletes'>;
  readonly case: Case;
  readonly routines: readonly RowOf<'routines'>[];
}

type ByKey<Row> = ReadonlyMap<string, readonly Row[]>;

/** A routine in force, with the day of the last verdicts on it and how often a week it is meant. */
type InForce = RowOf<'routines'> & {
  readonly decidedOn: string | null;
  readonly perWeek: number | null;
};

/** What happened to an item in a session, with what was scored in that session. */
type DiaryRow = RowOf<'session_entries'> & Pick<RowOf<'sessions'>, 'provoked'>;

interface Visits {
  readonly screenings: ByKey<RowOf<'screenings'>>;
  readonly results: ByKey<RowOf<'results'>>;
  readonly routines: ByKey<InForce>;
  readonly entries: ByKey<DiaryRow>;
  readonly checkIns: ByKey<RowOf<'check_ins'>>;
}

/** Visits, results, routines, diaries and the check-ins of the day, in five queries however many athletes there are. */
async function loadVisits(unit: Unit, ids: readonly string[], on: string): Promise<Visits> {
  const { query, practiceId } = unit;
  const values = {
    practiceId,
    ids: ids.length > 0 ? [...ids] : ['00000000-0000-0000-0000-000000000000'],
    on,
  };
  const screenings = await query<RowOf<'screenings'>>(
    `SELECT id, athlete_id AS "athleteId", date FROM screenings
     WHERE practice_id = :practiceId AND athlete_id IN (:ids) AND date <= :on ORDER BY date`,
    values,
  );
  const results = await query<RowOf<'results'>>(
    `SELECT r.screening_id AS "screeningId", r.test, r.side, r.value FROM results r
     JOIN screenings s ON s.id = r.screening_id
     WHERE s.practice_id = :practiceId AND s.athlete_id IN (:ids) AND s.date <= :on ORDER BY r.test, r.side`,
    values,
  );
  const routines = await query<InForce>(
    `SELECT DISTINCT ON (routines.athlete_id, occasion) routines.id, routines.athlete_id AS "athleteId", occasion, number, mode,
            structure, sections, request, items,
            issued_on AS "issuedOn", issued_by AS "issuedBy", total_seconds AS "totalSeconds", findings, reasons, changes, overrides, hardened, own_drills AS "ownDrills",
            (SELECT max(d.decided_on) FROM decisions d WHERE d.routine_id = routines.id AND d.decided_on <= :on) AS "decidedOn",
            nullif(jsonb_array_length(o.days), 0) * o.times_per_day AS "perWeek"
     FROM routines LEFT JOIN occasions o USING (athlete_id, occasion)
     WHERE routines.practice_id = :practiceId AND athlete_id IN (:ids) AND issued_on <= :on
       AND (o.ended_on IS NULL OR o.ended_on > :on)
     ORDER BY routines.athlete_id, occasion, number DESC`,
    values,
  );
  const entries = await query<DiaryRow>(
    `SELECT e.session_id AS "sessionId", e.item_id AS "itemId", e.athlete_id AS "athleteId", e.date, e.drill, e.side, e.done,
            e.amounts, e.pain_before AS "painBefore", e.pain, e.next_day_pain AS "nextDayPain", e.effort, e.quality,
            e.swapped_for AS "swappedFor", e.both_ways AS "bothWays", s.provoked
     FROM session_entries e JOIN sessions s ON s.id = e.session_id
     WHERE e.practice_id = :practiceId AND e.athlete_id IN (:ids) AND e.date <= :on AND (s.finished OR e.pain > 0)
     ORDER BY e.date, e.session_id, e.place`,
    values,
  );
  const checkIns = await unit.rows.check_ins.all({ athleteId: values.ids, date: on });
  return {
    checkIns: groupBy(checkIns, (row) => row.athleteId),
    screenings: groupBy(screenings, (row) => row.athleteId),
    results: groupBy(results, (row) => row.screeningId),
    routines: groupBy(routines, (row) => row.athleteId),
    entries: groupBy(entries, (row) => row.athleteId),
  };
}

const bare = <T extends { id: string; version: number }>({ id: _id, version: _version, ...rest }: T) => rest;

/** Levels seen, with the ladder each stands in today; a drill that is gone is placed nowhere. */
function placementsOf(story: Story, reference: Reference): Placement[] {
  return story.placements.flatMap((row) => {
    const ladder = reference.drills.get(row.drill)?.ladder;
    return ladder ? [{ ladder, ...bare(placementRow(row)) }] : [];
  });
}

function athletePart(story: Story): object {
  const row = athleteRow(story);
  return {
    birthDate: row.birthDate,
    bodyMassKg: row.bodyMassKg,
    limbLengthCm: row.limbLengthCm,
    dominantHand: row.dominantHand,
    dominantLeg: row.dominantLeg,
    trainingYears: row.trainingYears,
    tasks: row.tasks,
    exposure: row.exposure,
    injuries: row.injuries.map(bare),
    precautions: row.precautions.map(({ precaution, region, side, ...rest }) => ({
      id: precaution,
      ...only(rest, ['since', 'until', 'setBy', 'reason', 'clearance', 'ended']),
      ...(region === null ? {} : { region }),
      ...(side === null ? {} : { side }),
    })),
    redFlags: row.redFlags.map(({ redFlag, answer, region, side, clearance }) => ({
      id: redFlag,
      answer,
      region,
      side,
      clearance,
    })),
    asked: row.asked
      .filter((answer) => answer.outcome !== 'unknown')
      .map(({ topic, on, until, signs }) => ({ topic, on, until, ...(signs ? { signs } : {}) })),
    pains: row.pains.map(bare),
    lifts: row.lifts.map(bare),
    protocols: row.protocols.map(({ changed: _changed, ...protocol }) => bare(protocol)),
    dislikes: row.dislikes,
    loadLimits: row.loadLimits,
    lightSpans: row.lightSpans,
  };
}

/** The athlete of a record, from the story as it is stored. */
export function athleteOf(story: Story): Athlete {
  return athleteSchema.parse(athletePart(story));
}

function diaryOf(entries: readonly DiaryRow[]): unknown[] {
  return [...groupBy(entries, (row) => row.sessionId).values()].map((rows) => ({
    date: rows[0]?.date,
    provoked: rows[0]?.provoked,
    entries: rows.map(
      ({ itemId, sessionId: _s, athleteId: _a, date: _d, provoked: _p, swappedFor, bothWays, ...entry }) => ({
        item: itemId,
        ...entry,
        ...(swappedFor === null ? {} : { swappedFor }),
        ...(bothWays ? { bothWays } : {}),
      }),
    ),
  }));
}

/** A routine in force as a case holds it, with the set-ups that its drills have today. */
function issuedOf(reference: Reference, row: InForce): object {
  return {
    issued: row.issuedOn,
    decided: row.decidedOn,
    mode: row.mode,
    schools: row.request.schools,
    occasion: row.occasion,
    ...(row.perWeek === null ? {} : { perWeek: row.perWeek }),
    hardened: row.hardened,
    items: row.items.map((item) => renewedItem(reference, item).item),
  };
}

/** One athlete's case from the rows, with the practice's figures in it: what travels to a browser, a thread or a file. */
function caseOf(story: Story, visits: Visits, practice: PracticeSettings, on: string): LoadedRecord {
  const own = <Row>(rows: ByKey<Row>) => rows.get(story.athlete.id) ?? [];
  const place = ({ occasion }: InForce) => OCCASIONS.indexOf(occasion);
  const routines = [...own(visits.routines)].sort((a, b) => place(a) - place(b));
  const [routine = null, ...others] = routines.map((row) => issuedOf(practice.reference, row));
  const { figures, painLimits } = practice;
  const chosen = optionsOf(story.choices.filter((row) => row.endedOn === null));
  const document = {
    format: 'yonder-ridge-case/1',
    today: on,
    athlete: { ...athletePart(story), placements: placementsOf(story, practice.reference) },
    schools: { ...practice.schools, ...chosen },
    overrides: {
      ...figures,
      needs: story.needs.map(({ test, side, value, reason }) => ({ test, side, value, reason })),
      painLimits,
    },
    judgements: story.judgements
      .filter((judgement) => judgement.date <= on)
      .map(({ restriction, side, verdict, degree, reason, by, date }) => ({
        restriction,
        side,
        verdict,
        degree,
        reason,
        by,
        date,
      })),
    screenings: own(visits.screenings).map((screening) => ({
      date: screening.date,
      results: (visits.results.get(screening.id) ?? []).map(({ test, side, value }) => ({
        test,
        side,
        ...value,
      })),
    })),
    request: { minutes: story.athlete.minutes, kit: story.athlete.kit },
    routine,
    others,
    diary: diaryOf(own(visits.entries)),
    checkIns: own(visits.checkIns).map((row) =>
      only(row, ['date', 'slept', 'tension', 'news', 'minutes', 'space', 'warmMinutesAgo', 'sore']),
    ),
  };
  return { athlete: story.athlete, case: caseSchema.parse(document), routines };
}

/** Records of athletes of the practice (of all, when no ids are given) as of a day, in a bounded number of queries. */
export async function loadRecords(unit: Unit, on: string, ids?: readonly string[]): Promise<LoadedRecord[]> {
  const stories = await loadStories(unit, ids);
  const visits = await loadVisits(
    unit,
    stories.map((story) => story.athlete.id),
    on,
  );
  const practice = await unit.practice();
  return stories.map((story) => caseOf(story, visits, practice, on));
}

/** One athlete's record as of a day; 404 when the practice has no such athlete. */
export async function loadRecord(unit: Unit, athleteId: string, on: string): Promise<LoadedRecord> {
  const [record] = await loadRecords(unit, on, [athleteId]);
  if (!record) throw notFound('Athlete');
  return record;
}

/** A name for everything a judgement of this athlete rests on: it differs whenever anything of that does. */
export function revisionOf(unit: Unit, athlete: RowOf<'athletes'>, on: string): string {
  return `${athlete.id}.${athlete.revision}.${unit.practiceRevision}.${on}`;
}

/** Judges a record with the practice's own reference; kept under the record's revision. */
export async function assessRecord(
  deps: Deps,
  unit: Unit,
  record: LoadedRecord,
  on: string = record.case.today,
): Promise<Assessment> {
  const key = revisionOf(unit, record.athlete, on);
  const known = deps.assessments.get(key);
  if (known) return known;
  const practice = { ...(await unit.practice()), schools: record.case.schools };
  const assessment = assess(practice, recordOfCase(record.case), on);
  deps.assessments.set(key, assessment);
  return assessment;
}
