import { athleteFieldsSchema, VISIT_TOPIC } from '@yonder/core/contracts';
import type {
  AthleteFields,
  AthleteRow,
  GateAnswerRow,
  PrecautionRow,
  RedFlagRow,
} from '@yonder/core/contracts';
import { seasonEnd } from '@yonder/core/safety';
import type { RowOf } from '../../db/schema.ts';

/** Everything of one athlete's story, as stored. */
export interface Story {
  readonly athlete: RowOf<'athletes'>;
  /** Month and day on which the practice's season starts, MM-DD. */
  readonly seasonStarts: string;
  readonly gate: readonly RowOf<'gate_answers'>[];
  readonly injuries: readonly RowOf<'injuries'>[];
  readonly precautions: readonly RowOf<'precautions'>[];
  readonly redFlags: readonly RowOf<'red_flag_answers'>[];
  readonly pains: readonly RowOf<'pains'>[];
  readonly protocols: readonly RowOf<'protocols'>[];
  readonly needs: readonly RowOf<'need_overrides'>[];
  readonly placements: readonly RowOf<'placements'>[];
  readonly judgements: readonly RowOf<'judgements'>[];
  readonly lifts: readonly RowOf<'lifts'>[];
  /** Options chosen for this athlete, in force and ended. */
  readonly choices: readonly RowOf<'method_choices'>[];
}

/** Takes what the API shows of a row: an allow-list, so that a new column never leaks by itself. */
export function only<Row extends object, Key extends keyof Row>(
  row: Row,
  keys: readonly Key[],
): Pick<Row, Key> {
  return Object.fromEntries(keys.map((key) => [key, row[key]])) as Pick<Row, Key>;
}

/** A precaution as the API shows it. */
export function precautionRow(row: RowOf<'precautions'>): PrecautionRow {
  const { endedBy, endedOn, clearanceBy: by, clearanceOn: date, clearanceScope: scope } = row;
  return {
    ...only(row, ['id', 'version', 'precaution', 'reason', 'setBy', 'since', 'until', 'fromClearance']),
    ...only(row, ['region', 'side']),
    clearance: by && date && scope ? { by, date, scope } : null,
    ended: endedBy && endedOn ? { by: endedBy, date: endedOn } : null,
  };
}

/** A stop-and-refer answer as the API shows it. */
export function redFlagRow(row: RowOf<'red_flag_answers'>): RedFlagRow {
  const { clearanceBy: by, clearanceOn: date, clearanceScope: scope } = row;
  return {
    ...only(row, ['id', 'version', 'redFlag', 'answer', 'region', 'side', 'answeredOn', 'answeredBy']),
    clearance: by && date && scope ? { by, date, scope } : null,
  };
}

/** A protocol as the API shows it. */
export function protocolRow(row: RowOf<'protocols'>): AthleteRow['protocols'][0] {
  return only(row, ['id', 'version', 'region', 'side', 'by', 'date', 'drills', 'tests', 'changed']);
}

/** A pain as the API shows it. */
export function painRow(row: RowOf<'pains'>): AthleteRow['pains'][0] {
  const { aspect, feel, moment } = row;
  return {
    ...only(row, ['id', 'version', 'region', 'side', 'nrs', 'since', 'ended']),
    ...(aspect ? { aspect } : {}),
    ...(feel ? { feel } : {}),
    when: moment,
  };
}

function injuryRow(row: RowOf<'injuries'>): AthleteRow['injuries'][0] {
  return only(row, ['id', 'version', 'region', 'side', 'date', 'operated', 'what']);
}

/** A stored need as the API shows it. */
export function needRow(row: RowOf<'need_overrides'>): AthleteRow['needs'][0] {
  return only(row, ['id', 'version', 'test', 'side', 'value', 'reason', 'setBy', 'setOn']);
}

/** What was seen of a level, as the API shows it. */
export function placementRow(row: RowOf<'placements'>): AthleteRow['placements'][0] {
  return only(row, ['id', 'version', 'drill', 'side', 'verdict', 'by', 'date']);
}

function judgementRow(row: RowOf<'judgements'>): AthleteRow['judgements'][0] {
  return only(row, ['id', 'version', 'restriction', 'side', 'verdict', 'degree', 'reason', 'by', 'date']);
}

/** A lifted rule of the day, as the API shows it. */
export function liftRow(row: RowOf<'lifts'>): AthleteRow['lifts'][0] {
  return only(row, ['id', 'version', 'region', 'side', 'nrs', 'referral', 'places', 'reason', 'by', 'date']);
}

/** Answers to the topics of the gate, the newest of each topic and season, with how long each holds. */
function gateRows({ gate, seasonStarts }: Story): GateAnswerRow[] {
  const newest = new Map<string, GateAnswerRow>();
  for (const { topic, outcome, seconds, answeredOn: on, answeredBy: by, signs } of gate) {
    const until = topic === VISIT_TOPIC ? on : seasonEnd(on, seasonStarts);
    newest.set(`${topic}/${until}`, { topic, outcome, seconds, on, by, until, signs });
  }
  return [...newest.values()];
}

const FIELDS = Object.keys(athleteFieldsSchema.shape) as (keyof AthleteFields)[];

/** The athlete as the API shows it; positive answers only, since a "no" never lifts an earlier "yes". */
export function athleteRow(story: Story): AthleteRow {
  const { athlete } = story;
  return {
    ...only(athlete, ['id', 'version', ...FIELDS]),
    injuries: story.injuries.map(injuryRow),
    precautions: story.precautions.map(precautionRow),
    redFlags: story.redFlags.filter((row) => row.answer).map(redFlagRow),
    pains: story.pains.map(painRow),
    protocols: story.protocols.map(protocolRow),
    needs: story.needs.map(needRow),
    placements: story.placements.map(placementRow),
    judgements: story.judgements.map(judgementRow),
    lifts: story.lifts.map(liftRow),
    asked: gateRows(story),
    archived:
      athlete.archivedOn && athlete.archivedBy ? { by: athlete.archivedBy, date: athlete.archivedOn } : null,
  };
}
