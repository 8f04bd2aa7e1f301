import { createHash } from 'node:crypto';
import type { AthleteList, AthleteSummary } from '@yonder/core/contracts';
import { ageInYears } from '@yonder/core/domain';
import { judgeFindings } from '@yonder/core/findings';
import type { FindingsReport } from '@yonder/core/findings';
import { practiceReference } from '@yonder/core/reference';
import type { Reference } from '@yonder/core/reference';
import { activePrecautions, safetyState } from '@yonder/core/safety';
import { QueryTypes } from 'sequelize';
import type { Deps } from '../../deps.ts';
import type { User } from '../../http/endpoint.ts';
import { NO_FIGURES, practiceSettings } from '../figures/practice.ts';
import { athleteOf, loadCases } from './cases.ts';
import { loadStories } from './repository.ts';

/** What of a summary is worked out from all results and kept until something changes. */
type Judged = Pick<AthleteSummary, 'rescreenDue' | 'restrictions' | 'ridge' | 'real'>;

interface Known {
  readonly athleteId: string;
  readonly day: string;
  readonly summary: Judged;
  /** Nothing of athlete, practice or reference changed since; at most the day did. */
  readonly current: boolean;
}

/** Worked out while the list waits; more than that follows in the background. */
const AT_ONCE = 24;
const CHUNK = 12;

/** The worst margin per region and side: the miniature ridge of a list. */
function miniature(report: FindingsReport): AthleteSummary['ridge'] {
  const worst = new Map<string, AthleteSummary['ridge'][0]>();
  for (const { region, side, margin } of report.capacities) {
    if (margin === null) continue;
    const key = `${region}/${side}`;
    const known = worst.get(key);
    if (!known || margin < known.margin)
      worst.set(key, { region, side, margin: Math.round(margin * 100) / 100 });
  }
  return [...worst.values()];
}

function judged(report: FindingsReport): Judged {
  const short = report.findings.filter(
    (f) => f.priority > 0 && (f.state === 'short' || f.state === 'likely-short'),
  );
  const real = report.changes.filter((change) => change.real === 'yes');
  return {
    rescreenDue: report.rescreen[0]?.due ?? null,
    restrictions: short.slice(0, 3).map(({ restriction, side, state, severity }) => ({
      restriction,
      side,
      state,
      severity: Math.round(severity * 100) / 100,
    })),
    ridge: miniature(report),
    real: {
      better: real.filter((change) => change.difference > 0).length,
      worse: real.filter((change) => change.difference < 0).length,
    },
  };
}

const versions = new WeakMap<Reference, string>();
/** A short name of the reference data a summary was worked out with. */
function versionOf(reference: Reference): string {
  const known = versions.get(reference);
  if (known) return known;
  const made = createHash('sha256').update(JSON.stringify(reference.data)).digest('hex').slice(0, 16);
  versions.set(reference, made);
  return made;
}

async function readKnown(deps: Deps, practiceId: string): Promise<Map<string, Known>> {
  const rows = await deps.database.sequelize.query<Known>(
    `SELECT s.athlete_id AS "athleteId", s.day, s.summary,
            s.athlete_revision = a.revision AND s.practice_revision = p.revision AND s.reference = :reference AS current
     FROM athlete_summaries s
     JOIN athletes a ON a.id = s.athlete_id
     JOIN practices p ON p.id = s.practice_id
     WHERE s.practice_id = :practiceId`,
    { type: QueryTypes.SELECT, replacements: { practiceId, reference: versionOf(deps.reference) } },
  );
  return new Map(rows.map((row) => [row.athleteId, row]));
}

/** Works out and stores the summaries of some athletes. The revisions are read before the data: a change in between makes them old again. */
async function workOut(deps: Deps, practiceId: string, ids: readonly string[]): Promise<void> {
  if (ids.length === 0) return;
  const { sequelize } = deps.database;
  const revisions = await sequelize.query<{ id: string; athlete: number; practice: number }>(
    `SELECT a.id, a.revision AS athlete, p.revision AS practice FROM athletes a
     JOIN practices p ON p.id = a.practice_id WHERE a.practice_id = :practiceId AND a.id IN (:ids)`,
    { type: QueryTypes.SELECT, replacements: { practiceId, ids: [...ids] } },
  );
  const day = deps.today();
  const { figures } = await practiceSettings(deps.database, practiceId);
  const reference = practiceReference(deps.reference, figures);
  const cases = await loadCases(deps.database, practiceId, day, ids);
  for (const { athleteId, case: input } of cases) {
    const at = revisions.find((r) => r.id === athleteId);
    if (!at) continue;
    // The practice's figures are in the reference already: applying them again per athlete would cost most of the time.
    const own = { ...input, overrides: { ...input.overrides, ...NO_FIGURES } };
    const summary = judged(judgeFindings(reference, own));
    await sequelize.query(
      `INSERT INTO athlete_summaries (athlete_id, practice_id, athlete_revision, practice_revision, reference, day, summary)
       VALUES (:athleteId, :practiceId, :athlete, :practice, :reference, :day, CAST(:summary AS jsonb))
       ON CONFLICT (athlete_id) DO UPDATE SET athlete_revision = EXCLUDED.athlete_revision,
         practice_revision = EXCLUDED.practice_revision, reference = EXCLUDED.reference, day = EXCLUDED.day,
         summary = EXCLUDED.summary`,
      {
        replacements: {
          athleteId,
          practiceId,
          athlete: at.athlete,
          practice: at.practice,
          reference: versionOf(deps.reference),
          day,
          summary: JSON.stringify(summary),
        },
      },
    );
    await new Promise<void>((resolve) => setImmediate(resolve)); // other requests are answered in between
  }
}

const working = new Set<string>();

/** Goes on working out summaries behind the answer, a few at a time, once per practice. */
function workOutLater(deps: Deps, practiceId: string, ids: readonly string[]): void {
  if (working.has(practiceId) || ids.length === 0) return;
  working.add(practiceId);
  const run = async () => {
    for (let at = 0; at < ids.length; at += CHUNK) await workOut(deps, practiceId, ids.slice(at, at + CHUNK));
  };
  // A lost database ends the run; the next look at the list starts it again.
  run().then(
    () => working.delete(practiceId),
    () => working.delete(practiceId),
  );
}

interface Latest {
  athleteId: string;
  lastScreening: string | null;
  routineVersion: number | null;
}

async function readLatest(deps: Deps, practiceId: string): Promise<Map<string, Latest>> {
  const rows = await deps.database.sequelize.query<Latest>(
    `SELECT a.id AS "athleteId",
            (SELECT max(s.date) FROM screenings s WHERE s.athlete_id = a.id AND s.date <= :today) AS "lastScreening",
            (SELECT max(r.number) FROM routines r WHERE r.athlete_id = a.id AND r.issued_on <= :today) AS "routineVersion"
     FROM athletes a WHERE a.practice_id = :practiceId`,
    { type: QueryTypes.SELECT, replacements: { practiceId, today: deps.today() } },
  );
  return new Map(rows.map((row) => [row.athleteId, row]));
}

/**
 * Every athlete of the practice, sorted by name. Stop signs, precautions, last screening and routine are read as they
 * are now; what follows from all results is kept and worked out anew when something of the athlete, the practice or the
 * day changed: a few at once, the rest behind the answer (`pending` of them).
 */
export async function listAthletes(deps: Deps, user: User): Promise<AthleteList> {
  const { practiceId } = user;
  const today = deps.today();
  const stories = await loadStories(deps.database, practiceId);
  let known = await readKnown(deps, practiceId);
  const ids = stories.map((story) => story.athlete.id);
  const old = ids.filter((id) => !known.get(id)?.current);
  await workOut(deps, practiceId, old.slice(0, AT_ONCE));
  if (old.length > 0) known = await readKnown(deps, practiceId);
  const pending = ids.filter((id) => !known.get(id)?.current || known.get(id)?.day !== today);
  workOutLater(deps, practiceId, pending);
  const latest = await readLatest(deps, practiceId);
  const athletes = stories.map((story): AthleteSummary => {
    const { id, name, sport, birthDate } = story.athlete;
    const athlete = athleteOf(story);
    const safety = safetyState(deps.reference, athlete, today);
    const stopped = safety.blocks.some((block) => block.level === 'E');
    const row = known.get(id);
    const fresh = row?.current ? row.summary : null;
    const { lastScreening = null, routineVersion = null } = latest.get(id) ?? {};
    return {
      id,
      name,
      sport,
      birthDate,
      age: ageInYears(birthDate, today),
      lastScreening,
      routineVersion,
      blocked: safety.blocks.length > 0,
      precautions: activePrecautions(athlete, today).length,
      reviewsDue: activePrecautions(athlete, today).filter((p) => p.reviewDue).length,
      protocol: safety.gates.length > 0,
      judged: fresh !== null,
      // Under an emergency sign no findings are shown, whatever is kept.
      rescreenDue: stopped ? null : (fresh?.rescreenDue ?? null),
      restrictions: stopped ? [] : (fresh?.restrictions ?? []),
      ridge: stopped ? [] : (fresh?.ridge ?? []),
      real: stopped ? { better: 0, worse: 0 } : (fresh?.real ?? { better: 0, worse: 0 }),
    };
  });
  return { athletes, pending: pending.length };
}
