import { DataTypes } from 'sequelize';
import type { Model, ModelStatic, Sequelize } from 'sequelize';

type Table<Row extends object> = ModelStatic<Model<Row, Partial<Row>>>;

export interface PracticeRecord {
  id: string;
  name: string;
  schools: Record<string, string>;
  painLimits: { fine: number; stop: number } | null;
  doseShares: object[];
  version: number;
}
export interface ClinicianRecord {
  id: string;
  practiceId: string;
  email: string;
  name: string;
  passwordHash: string;
}
export interface AthleteRecord {
  id: string;
  practiceId: string;
  name: string;
  sport: string;
  birthDate: string;
  bodyMassKg: number | null;
  limbLengthCm: object;
  dominantHand: string | null;
  dominantLeg: string | null;
  trainingYears: number;
  tasks: object[];
  kit: string[];
  minutes: number;
  places: object[];
  minutesBuild: number | null;
  minutesRestore: number | null;
  dislikes: string[];
  loadLimits: object[];
  placements: object[];
  version: number;
}
export interface OfAthlete {
  id: string;
  athleteId: string;
  practiceId: string;
}
export interface InjuryRecord extends OfAthlete {
  region: string;
  side: string;
  date: string;
  operated: boolean;
  what: string;
}
export interface PrecautionRecord extends OfAthlete {
  precaution: string;
  reason: string;
  setBy: string;
  since: string;
  until: string | null;
  endedBy: string | null;
  endedOn: string | null;
}
export interface RedFlagRecord extends OfAthlete {
  redFlag: string;
  answer: boolean;
  region: string | null;
  side: string | null;
  askedFor: string[];
  answeredOn: string;
  answeredBy: string;
  clearanceBy: string | null;
  clearanceOn: string | null;
  clearanceScope: string | null;
  createdAt: Date;
}
export interface PainRecord extends OfAthlete {
  region: string;
  side: string;
  aspect: string | null;
  feel: string | null;
  moment: string;
  nrs: number;
  since: string;
  ended: string | null;
}
export interface ProtocolRecord extends OfAthlete {
  region: string;
  side: string;
  by: string;
  date: string;
  drills: string[];
  tests: string[];
  version: number;
}
export interface NeedRecord extends OfAthlete {
  test: string;
  side: string;
  value: number;
  reason: string;
  setBy: string;
  setOn: string;
}
export interface JudgementRecord extends OfAthlete {
  restriction: string;
  side: string;
  verdict: string;
  degree: string;
  reason: string;
  by: string;
  date: string;
  createdAt: Date;
}
export interface ReferenceEditRecord {
  id: string;
  practiceId: string;
  test: string;
  path: string;
  task: string;
  value: number;
  oldValue: number | null;
  reason: string;
  by: string;
  date: string;
  endedBy: string | null;
  endedOn: string | null;
  createdAt: Date;
}
export interface PracticeTaskRecord {
  id: string;
  practiceId: string;
  slug: string;
  name: string;
  sport: string;
  demands: object[];
  version: number;
}
export interface OwnDrillRecord {
  id: string;
  practiceId: string;
  slug: string;
  drill: object;
  savedBy: string;
  savedOn: string;
  version: number;
}
export interface TemplateRecord {
  id: string;
  practiceId: string;
  name: string;
  sport: string;
  role: string;
  structure: string;
  request: object;
  items: object[];
  savedBy: string;
  savedOn: string;
  version: number;
}
export interface ScreeningRecord extends OfAthlete {
  date: string;
  finished: boolean;
  version: number;
  createdBy: string | null;
}
export interface ResultRecord {
  id: string;
  screeningId: string;
  practiceId: string;
  test: string;
  side: string;
  value: object;
  version: number;
}
export interface RoutineRecord extends OfAthlete {
  number: number;
  mode: string;
  structure: string;
  issuedOn: string;
  issuedBy: string;
  items: object[];
  totalSeconds: number;
  request: object;
  findings: object[];
  changes: string[];
}
export interface DraftRecord {
  athleteId: string;
  practiceId: string;
  draft: object;
  version: number;
}
export interface SessionRecord extends OfAthlete {
  routineId: string;
  date: string;
  finished: boolean;
  progress: object;
  entries: object[];
  version: number;
}
export interface DecisionRecord extends OfAthlete {
  routineId: string;
  itemIndex: number;
  drill: string;
  decision: string;
  reasons: object[];
  verdict: string;
  instead: string | null;
  reason: string | null;
  decidedBy: string;
  decidedOn: string;
}
export interface AuditRecord {
  id: string;
  practiceId: string;
  clinicianId: string;
  athleteId: string | null;
  action: string;
}

export interface Models {
  readonly practices: Table<PracticeRecord>;
  readonly clinicians: Table<ClinicianRecord>;
  readonly athletes: Table<AthleteRecord>;
  readonly injuries: Table<InjuryRecord>;
  readonly precautions: Table<PrecautionRecord>;
  readonly redFlags: Table<RedFlagRecord>;
  readonly pains: Table<PainRecord>;
  readonly protocols: Table<ProtocolRecord>;
  readonly needs: Table<NeedRecord>;
  readonly judgements: Table<JudgementRecord>;
  readonly referenceEdits: Table<ReferenceEditRecord>;
  readonly practiceTasks: Table<PracticeTaskRecord>;
  readonly ownDrills: Table<OwnDrillRecord>;
  readonly templates: Table<TemplateRecord>;
  readonly screenings: Table<ScreeningRecord>;
  readonly results: Table<ResultRecord>;
  readonly routines: Table<RoutineRecord>;
  readonly drafts: Table<DraftRecord>;
  readonly sessions: Table<SessionRecord>;
  readonly decisions: Table<DecisionRecord>;
  readonly audit: Table<AuditRecord>;
}

const { UUID, UUIDV4, TEXT, DATEONLY, DATE, DOUBLE, INTEGER, BOOLEAN, JSONB, BIGINT, NOW } = DataTypes;

const key = { type: UUID, primaryKey: true, defaultValue: UUIDV4 };
const ofPractice = { practiceId: { type: UUID, allowNull: false } };
const ofAthlete = { id: key, athleteId: { type: UUID, allowNull: false }, ...ofPractice };
const version = { type: INTEGER, allowNull: false, defaultValue: 1 };

/** Column definitions of every table; constraints, keys and indexes are in the migrations. */
export function defineModels(sequelize: Sequelize): Models {
  const table = <Row extends object>(name: string, columns: Record<string, unknown>) =>
    sequelize.define(name, columns as never, { tableName: name }) as Table<Row>;
  return {
    practices: table('practices', {
      id: key,
      name: TEXT,
      schools: { type: JSONB, defaultValue: {} },
      painLimits: JSONB,
      doseShares: { type: JSONB, defaultValue: [] },
      version,
    }),
    clinicians: table('clinicians', { id: key, ...ofPractice, email: TEXT, name: TEXT, passwordHash: TEXT }),
    athletes: table('athletes', {
      id: key,
      ...ofPractice,
      name: TEXT,
      sport: TEXT,
      birthDate: DATEONLY,
      bodyMassKg: DOUBLE,
      limbLengthCm: JSONB,
      dominantHand: TEXT,
      dominantLeg: TEXT,
      trainingYears: DOUBLE,
      tasks: JSONB,
      kit: JSONB,
      minutes: DOUBLE,
      places: { type: JSONB, defaultValue: [] },
      minutesBuild: DOUBLE,
      minutesRestore: DOUBLE,
      dislikes: { type: JSONB, defaultValue: [] },
      loadLimits: { type: JSONB, defaultValue: [] },
      placements: { type: JSONB, defaultValue: [] },
      version,
    }),
    injuries: table('injuries', {
      ...ofAthlete,
      region: TEXT,
      side: TEXT,
      date: DATEONLY,
      operated: BOOLEAN,
      what: TEXT,
    }),
    precautions: table('precautions', {
      ...ofAthlete,
      precaution: TEXT,
      reason: TEXT,
      setBy: TEXT,
      since: DATEONLY,
      until: DATEONLY,
      endedBy: TEXT,
      endedOn: DATEONLY,
    }),
    redFlags: table('red_flag_answers', {
      ...ofAthlete,
      redFlag: TEXT,
      answer: BOOLEAN,
      region: TEXT,
      side: TEXT,
      askedFor: JSONB,
      answeredOn: DATEONLY,
      answeredBy: TEXT,
      clearanceBy: TEXT,
      clearanceOn: DATEONLY,
      clearanceScope: TEXT,
      createdAt: { type: DATE, defaultValue: NOW },
    }),
    pains: table('pains', {
      ...ofAthlete,
      region: TEXT,
      side: TEXT,
      aspect: TEXT,
      feel: TEXT,
      moment: TEXT,
      nrs: DOUBLE,
      since: DATEONLY,
      ended: DATEONLY,
    }),
    protocols: table('protocols', {
      ...ofAthlete,
      region: TEXT,
      side: TEXT,
      by: TEXT,
      date: DATEONLY,
      drills: JSONB,
      tests: JSONB,
      version,
    }),
    needs: table('need_overrides', {
      ...ofAthlete,
      test: TEXT,
      side: TEXT,
      value: DOUBLE,
      reason: TEXT,
      setBy: TEXT,
      setOn: DATEONLY,
    }),
    judgements: table('judgements', {
      ...ofAthlete,
      restriction: TEXT,
      side: TEXT,
      verdict: TEXT,
      degree: TEXT,
      reason: TEXT,
      by: TEXT,
      date: DATEONLY,
      createdAt: { type: DATE, defaultValue: NOW },
    }),
    referenceEdits: table('reference_edits', {
      id: key,
      ...ofPractice,
      test: TEXT,
      path: TEXT,
      task: { type: TEXT, defaultValue: '' },
      value: DOUBLE,
      oldValue: DOUBLE,
      reason: TEXT,
      by: TEXT,
      date: DATEONLY,
      endedBy: TEXT,
      endedOn: DATEONLY,
      createdAt: { type: DATE, defaultValue: NOW },
    }),
    practiceTasks: table('practice_tasks', {
      id: key,
      ...ofPractice,
      slug: TEXT,
      name: TEXT,
      sport: TEXT,
      demands: JSONB,
      version,
    }),
    ownDrills: table('own_drills', {
      id: key,
      ...ofPractice,
      slug: TEXT,
      drill: JSONB,
      savedBy: TEXT,
      savedOn: DATEONLY,
      version,
    }),
    templates: table('templates', {
      id: key,
      ...ofPractice,
      name: TEXT,
      sport: TEXT,
      role: TEXT,
      structure: TEXT,
      request: JSONB,
      items: JSONB,
      savedBy: TEXT,
      savedOn: DATEONLY,
      version,
    }),
    screenings: table('screenings', {
      ...ofAthlete,
      date: DATEONLY,
      finished: BOOLEAN,
      version,
      createdBy: UUID,
    }),
    results: table('results', {
      id: key,
      screeningId: UUID,
      ...ofPractice,
      test: TEXT,
      side: TEXT,
      value: JSONB,
      version,
    }),
    routines: table('routines', {
      ...ofAthlete,
      number: INTEGER,
      mode: TEXT,
      structure: TEXT,
      issuedOn: DATEONLY,
      issuedBy: TEXT,
      items: JSONB,
      totalSeconds: INTEGER,
      request: JSONB,
      findings: JSONB,
      changes: JSONB,
    }),
    drafts: table('routine_drafts', {
      athleteId: { type: UUID, primaryKey: true },
      ...ofPractice,
      draft: JSONB,
      version,
    }),
    sessions: table('sessions', {
      ...ofAthlete,
      routineId: UUID,
      date: DATEONLY,
      finished: { type: BOOLEAN, defaultValue: false },
      progress: { type: JSONB, defaultValue: { segment: 0, elapsed: 0 } },
      entries: { type: JSONB, defaultValue: [] },
      version,
    }),
    decisions: table('decisions', {
      ...ofAthlete,
      routineId: UUID,
      itemIndex: INTEGER,
      drill: TEXT,
      decision: TEXT,
      reasons: JSONB,
      verdict: TEXT,
      instead: TEXT,
      reason: TEXT,
      decidedBy: TEXT,
      decidedOn: DATEONLY,
    }),
    audit: table('audit_events', {
      id: { type: BIGINT, primaryKey: true, autoIncrement: true },
      ...ofPractice,
      clinicianId: UUID,
      athleteId: UUID,
      action: TEXT,
    }),
  };
}
