import type { AthleteFields, AthleteRow, PrecautionRow, RedFlagRow } from '@yonder/core/contracts';
import type {
  AthleteRecord,
  InjuryRecord,
  JudgementRecord,
  NeedRecord,
  PainRecord,
  PrecautionRecord,
  ProtocolRecord,
  RedFlagRecord,
} from '../../db/models.ts';

/** Everything of one athlete's story, as stored. */
export interface StoryRecords {
  readonly athlete: AthleteRecord;
  readonly injuries: readonly InjuryRecord[];
  readonly precautions: readonly PrecautionRecord[];
  readonly redFlags: readonly RedFlagRecord[];
  readonly pains: readonly PainRecord[];
  readonly protocols: readonly ProtocolRecord[];
  readonly needs: readonly NeedRecord[];
  readonly judgements: readonly JudgementRecord[];
}

/** A precaution as the API shows it. */
export function precautionRow(record: PrecautionRecord): PrecautionRow {
  return {
    id: record.id,
    precaution: record.precaution,
    reason: record.reason,
    setBy: record.setBy,
    since: record.since,
    until: record.until,
    ended: record.endedBy && record.endedOn ? { by: record.endedBy, date: record.endedOn } : null,
  };
}

/** A stop-and-refer answer as the API shows it. */
export function redFlagRow(record: RedFlagRecord): RedFlagRow {
  const { clearanceBy: by, clearanceOn: date, clearanceScope: scope } = record;
  return {
    id: record.id,
    redFlag: record.redFlag,
    answer: record.answer,
    region: record.region as RedFlagRow['region'],
    side: record.side as RedFlagRow['side'],
    answeredOn: record.answeredOn,
    answeredBy: record.answeredBy,
    clearance: by && date && scope ? { by, date, scope } : null,
  };
}

/** A protocol as the API shows it. */
export function protocolRow(record: ProtocolRecord): AthleteRow['protocols'][0] {
  const { id, region, side, by, date, drills, tests, version } = record;
  return { id, region, side, by, date, drills, tests, version } as AthleteRow['protocols'][0];
}

function painRow(record: PainRecord): AthleteRow['pains'][0] {
  const { id, region, side, aspect, feel, moment, nrs, since, ended } = record;
  const place = { ...(aspect ? { aspect } : {}), ...(feel ? { feel } : {}) };
  return { id, region, side, ...place, when: moment, nrs, since, ended } as AthleteRow['pains'][0];
}

function needRow({ id, test, side, value, reason, setBy, setOn }: NeedRecord): AthleteRow['needs'][0] {
  return { id, test, side, value, reason, setBy, setOn } as AthleteRow['needs'][0];
}

function judgementRow(record: JudgementRecord): AthleteRow['judgements'][0] {
  const { id, restriction, side, verdict, degree, reason, by, date } = record;
  return { id, restriction, side, verdict, degree, reason, by, date } as AthleteRow['judgements'][0];
}

/** Regions whose questions were answered, with the newest day. */
function askedRegions(records: readonly RedFlagRecord[]): AthleteRow['asked'] {
  const newest = new Map<string, string>();
  for (const record of records) {
    for (const region of record.askedFor) {
      if ((newest.get(region) ?? '') < record.answeredOn) newest.set(region, record.answeredOn);
    }
  }
  return [...newest.entries()].map(([region, on]) => ({ region, on })) as AthleteRow['asked'];
}

/** The athlete as the API shows it; positive answers only, since a "no" never lifts an earlier "yes". */
export function athleteRow(story: StoryRecords): AthleteRow {
  const { athlete } = story;
  return {
    id: athlete.id,
    version: athlete.version,
    name: athlete.name,
    sport: athlete.sport,
    birthDate: athlete.birthDate,
    bodyMassKg: athlete.bodyMassKg,
    limbLengthCm: athlete.limbLengthCm as AthleteFields['limbLengthCm'],
    dominantHand: athlete.dominantHand as AthleteFields['dominantHand'],
    dominantLeg: athlete.dominantLeg as AthleteFields['dominantLeg'],
    trainingYears: athlete.trainingYears,
    tasks: athlete.tasks as AthleteFields['tasks'],
    kit: athlete.kit,
    minutes: athlete.minutes,
    minutesBuild: athlete.minutesBuild,
    minutesRestore: athlete.minutesRestore,
    places: athlete.places as AthleteFields['places'],
    dislikes: athlete.dislikes,
    loadLimits: athlete.loadLimits as AthleteFields['loadLimits'],
    injuries: story.injuries.map(({ id, region, side, date, operated, what }) => ({
      id,
      region: region as AthleteRow['injuries'][0]['region'],
      side: side as AthleteRow['injuries'][0]['side'],
      date,
      operated,
      what,
    })),
    precautions: story.precautions.map(precautionRow),
    redFlags: story.redFlags.filter((record) => record.answer).map(redFlagRow),
    pains: story.pains.map(painRow),
    protocols: story.protocols.map(protocolRow),
    needs: story.needs.map(needRow),
    judgements: story.judgements.map(judgementRow),
    asked: askedRegions(story.redFlags),
  };
}
