import type { AthleteSummary } from '@yonder/core/contracts';
import { ageInYears } from '@yonder/core/domain';
import type { Assessment } from '@yonder/core/assess';
import { isShort } from '@yonder/core/findings';
import { todoOf } from '@yonder/core/today';
import type { FindingsReport } from '@yonder/core/findings';

/** What of an athlete's line is worked out and kept: everything but who it is. */
export type Kept = Omit<AthleteSummary, 'id' | 'name' | 'sport' | 'birthDate' | 'age' | 'judged'>;

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

/** The line of an assessed athlete; under an emergency sign the report holds no findings, so neither does the line. */
export function summaryOf(assessment: Assessment, routineVersion: number | null): Kept {
  const { report, safety, standing } = assessment;
  const short = report.findings.filter(isShort);
  const real = report.changes.filter((change) => change.real === 'yes');
  return {
    lastScreening: standing.screenings.reduce<string | null>(
      (last, { date }) => (last === null || date > last ? date : last),
      null,
    ),
    routineVersion,
    blocked: safety.blocks.length > 0,
    precautions: safety.precautions.length,
    reviewsDue: safety.precautions.filter((p) => p.reviewDue).length,
    protocol: safety.gates.length > 0,
    rescreenDue: report.rescreen[0]?.due ?? null,
    restrictions: short.slice(0, 3).map(({ restriction, side, state, severity }) => ({
      restriction,
      side,
      state,
      severity: Math.round(severity * 100) / 100,
    })),
    ridge: miniature(report),
    todo: todoOf(assessment),
    oldResults: report.rescreen.filter(({ due }) => due <= standing.today).length,
    real: {
      better: real.filter((change) => change.difference > 0).length,
      worse: real.filter((change) => change.difference < 0).length,
    },
  };
}

/** The line of an athlete that nothing is worked out of yet. */
const NOT_YET: Kept = {
  lastScreening: null,
  routineVersion: null,
  blocked: false,
  precautions: 0,
  reviewsDue: 0,
  protocol: false,
  rescreenDue: null,
  restrictions: [],
  ridge: [],
  todo: [],
  oldResults: 0,
  real: { better: 0, worse: 0 },
};

/** Who it is, with what is kept of them (JSON, null when nothing is worked out yet): a line of the list as JSON. */
export function lineJson(
  { id, name, sport, birthDate }: Pick<AthleteSummary, 'id' | 'name' | 'sport' | 'birthDate'>,
  kept: string | null,
  today: string,
): string {
  const age = ageInYears(birthDate, today);
  const who = JSON.stringify({ id, name, sport, birthDate, age, judged: kept !== null });
  return `${who.slice(0, -1)},${(kept ?? JSON.stringify(NOT_YET)).slice(1)}`;
}
