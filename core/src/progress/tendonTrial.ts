import type { Assessment } from '../assess/index.ts';
import { daysBetween } from '../domain/index.ts';
import type { Region } from '../domain/index.ts';
import { isTendonHold } from '../dose/index.ts';
import { schoolOption } from '../findings/index.ts';
import type { Reason } from '../reasons/index.ts';
import type { Drill } from '../reference/index.ts';
import { PROGRESS } from './settings.ts';
import { doseInForce } from './steps.ts';

/** How a trial of long holds stands: falls are pain before less pain after, 0–10. */
interface TendonTrial {
  readonly region: Region;
  readonly sessions: number;
  /** Days since the first scored session. */
  readonly days: number;
  /** Median fall of the scored sessions. */
  readonly fall: number;
  readonly verdict: 'open' | 'held' | 'failed';
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length / 2;
  const upper = sorted[Math.floor(middle)] ?? 0;
  return sorted.length % 2 === 1 ? upper : ((sorted[middle - 1] ?? 0) + upper) / 2;
}

/**
 * The trial of a long hold for a tendon that hurts, where the school puts them on trial: judged after two weeks by the
 * movement that hurts, scored before and after. Null for every other drill.
 */
export function tendonTrial(assessment: Assessment, drill: Drill): TendonTrial | null {
  const { reference, standing } = assessment;
  if (schoolOption(reference, standing.schools, 'tendon-isometrics') !== 'trial') return null;
  if (!isTendonHold(doseInForce(assessment), drill)) return null;
  const region = drill.regions.primary[0];
  if (!region) return null;
  const scored = standing.diary
    .filter(({ date, entries }) => date <= standing.today && entries.some((e) => e.drill === drill.id))
    .flatMap(({ date, provoked = [] }) =>
      provoked.flatMap(({ region: where, before, after }) =>
        where === region && before !== null && after !== null ? [{ date, fall: before - after }] : [],
      ),
    );
  const first = scored.map(({ date }) => date).sort()[0];
  const days = first ? daysBetween(first, standing.today) : 0;
  const fall = median(scored.map((one) => one.fall));
  const ripe = days >= PROGRESS.trialDays && scored.length >= PROGRESS.trialSessions;
  const verdict = !ripe ? 'open' : fall >= PROGRESS.trialFall ? 'held' : 'failed';
  return { region, sessions: scored.length, days, fall, verdict };
}

/** How the trial of a drill stands, said beside its decision. */
export function trialReasons(assessment: Assessment, drill: Drill): Reason[] {
  const trial = tendonTrial(assessment, drill);
  if (!trial) return [];
  const { region, sessions, days, fall, verdict } = trial;
  if (verdict === 'open') return [{ rule: 'tendon-trial-open', region, sessions, days }];
  const held = verdict === 'held';
  return [{ rule: 'tendon-trial-result', region, sessions, fall, wanted: PROGRESS.trialFall, held }];
}
