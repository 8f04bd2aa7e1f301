import type { Athlete, Case } from '@yonder/core/domain';
import { athleteSchema, caseSchema } from '@yonder/core/schemas';
import type { Transaction } from 'sequelize';
import type { Database } from '../../db/database.ts';
import type { ResultRecord, RoutineRecord, ScreeningRecord, SessionRecord } from '../../db/models.ts';
import { notFound } from '../../http/problem.ts';
import { practiceSettings } from '../figures/practice.ts';
import type { PracticeSettings } from '../figures/practice.ts';
import { athleteRow } from './records.ts';
import type { StoryRecords } from './records.ts';
import { groupBy, loadStories } from './repository.ts';

/** An athlete's whole record as the core reads it, with the id of the routine in force. */
export interface LoadedCase {
  readonly athleteId: string;
  readonly name: string;
  readonly sport: string;
  readonly case: Case;
  readonly routine: RoutineRecord | null;
}

type ByKey<Row> = ReadonlyMap<string, readonly Row[]>;

/** Visits by athlete, results by screening. */
interface Visits {
  readonly screenings: ByKey<ScreeningRecord>;
  readonly results: ByKey<ResultRecord>;
  readonly routines: ByKey<RoutineRecord>;
  readonly sessions: ByKey<SessionRecord>;
}

async function loadVisits(
  { models }: Database,
  practiceId: string,
  athleteIds: readonly string[],
  transaction?: Transaction,
): Promise<Visits> {
  const scope = { transaction, raw: true } as const;
  const own = { practiceId, athleteId: [...athleteIds] };
  const screenings = (await models.screenings.findAll({
    where: own,
    order: [['date', 'ASC']],
    ...scope,
  })) as unknown as ScreeningRecord[];
  const results = await models.results.findAll({
    where: { practiceId, screeningId: screenings.map((s) => s.id) },
    order: [
      ['test', 'ASC'],
      ['side', 'ASC'],
    ],
    ...scope,
  });
  const routines = await models.routines.findAll({ where: own, order: [['number', 'ASC']], ...scope });
  const sessions = await models.sessions.findAll({
    where: { ...own, finished: true },
    order: [
      ['date', 'ASC'],
      ['id', 'ASC'],
    ],
    ...scope,
  });
  return {
    screenings: groupBy(screenings, (row) => row.athleteId),
    results: groupBy(results as unknown as ResultRecord[], (row) => row.screeningId),
    routines: groupBy(routines as unknown as RoutineRecord[], (row) => row.athleteId),
    sessions: groupBy(sessions as unknown as SessionRecord[], (row) => row.athleteId),
  };
}

function athletePart(story: StoryRecords): unknown {
  const row = athleteRow(story);
  return {
    birthDate: row.birthDate,
    bodyMassKg: row.bodyMassKg,
    limbLengthCm: row.limbLengthCm,
    dominantHand: row.dominantHand,
    dominantLeg: row.dominantLeg,
    trainingYears: row.trainingYears,
    tasks: row.tasks,
    injuries: row.injuries.map(({ id: _id, ...injury }) => injury),
    precautions: row.precautions.map((p) => ({
      id: p.precaution,
      since: p.since,
      until: p.until,
      setBy: p.setBy,
      reason: p.reason,
      ended: p.ended,
    })),
    redFlags: row.redFlags.map((flag) => ({
      id: flag.redFlag,
      answer: flag.answer,
      region: flag.region,
      side: flag.side,
      clearance: flag.clearance,
    })),
    placements: story.athlete.placements,
    pains: row.pains.map(({ id: _id, ...pain }) => pain),
    protocols: row.protocols.map(({ id: _id, version: _v, ...protocol }) => protocol),
    dislikes: row.dislikes,
    loadLimits: row.loadLimits,
  };
}

/** The athlete of a case, from the story as it is stored. */
export function athleteOf(story: StoryRecords): Athlete {
  return athleteSchema.parse(athletePart(story));
}

function caseOf(story: StoryRecords, visits: Visits, practice: PracticeSettings, on: string): LoadedCase {
  const own = <Row>(rows: ByKey<Row>) => rows.get(story.athlete.id) ?? [];
  const routine = own(visits.routines).findLast((r) => r.issuedOn <= on) ?? null;
  const document = {
    format: 'yonder-ridge-case/1',
    today: on,
    athlete: athletePart(story),
    schools: practice.schools,
    overrides: {
      needs: story.needs.map(({ test, side, value, reason }) => ({ test, side, value, reason })),
      reference: practice.figures.reference,
      tasks: practice.figures.tasks,
      painLimits: practice.painLimits,
      drills: practice.figures.drills,
      doseShares: practice.figures.doseShares,
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
    screenings: own(visits.screenings)
      .filter((screening) => screening.date <= on)
      .map((screening) => ({
        date: screening.date,
        results: (visits.results.get(screening.id) ?? []).map((result) => ({
          test: result.test,
          side: result.side,
          ...result.value,
        })),
      })),
    request: { minutes: story.athlete.minutes, kit: story.athlete.kit },
    routine: routine ? { issued: routine.issuedOn, mode: routine.mode, items: routine.items } : null,
    diary: own(visits.sessions)
      .filter((session) => session.date <= on)
      .map((session) => ({ date: session.date, entries: session.entries })),
  };
  return {
    athleteId: story.athlete.id,
    name: story.athlete.name,
    sport: story.athlete.sport,
    case: caseSchema.parse(document),
    routine,
  };
}

/** Cases of athletes of a practice (of all, when no ids are given) as of a day, in a handful of queries. */
export async function loadCases(
  database: Database,
  practiceId: string,
  on: string,
  ids?: readonly string[],
): Promise<LoadedCase[]> {
  const stories = await loadStories(database, practiceId, ids);
  const visits = await loadVisits(
    database,
    practiceId,
    stories.map((story) => story.athlete.id),
  );
  const practice = await practiceSettings(database, practiceId);
  return stories.map((story) => caseOf(story, visits, practice, on));
}

/** One athlete's case as of a day; 404 when the practice has no such athlete. */
export async function loadCase(
  database: Database,
  practiceId: string,
  athleteId: string,
  on: string,
  transaction?: Transaction,
): Promise<LoadedCase> {
  const [story] = await loadStories(database, practiceId, [athleteId], transaction);
  if (!story) throw notFound('Athlete');
  const visits = await loadVisits(database, practiceId, [athleteId], transaction);
  return caseOf(story, visits, await practiceSettings(database, practiceId, transaction), on);
}
