import type { Reference } from '../src/reference/index.ts';
import type { BuildReport } from '../src/builder/index.ts';
import type { FindingsReport } from '../src/findings/index.ts';
import type { CaseFault } from '../src/formats/index.ts';
import type { ProgressReport } from '../src/progress/index.ts';
import { infeasibleText, reasonText } from '../src/words/index.ts';
import { bundledReference } from '../src/reference/bundled.ts';

/** Decimals of a number by the name of its field: probabilities and shares four, measured figures two, others three. */
const DECIMALS: Readonly<Record<string, number>> = {
  pShort: 4,
  gap: 6,
  objective: 6,
  bound: 6,
  sd: 4,
  estimate: 4,
  severity: 4,
  priority: 4,
  margin: 4,
  reserve: 4,
};

/** Rounds every number in a document to the precision its field deserves, leaving the order as it is. */
export function rounded(value: unknown, field = ''): unknown {
  if (typeof value === 'number') {
    if (Number.isInteger(value)) return value;
    const factor = 10 ** (DECIMALS[field] ?? 3);
    const result = Math.round(value * factor) / factor;
    return Object.is(result, -0) ? 0 : result;
  }
  if (Array.isArray(value)) return value.map((entry) => rounded(entry, field));
  if (value !== null && typeof value === 'object') {
    return Object.fromEntries(Object.entries(value).map(([key, entry]) => [key, rounded(entry, key)]));
  }
  return value;
}

/** The document `findings` prints (docs/case-format.md). */
export function findingsOutput(report: FindingsReport, warnings: readonly CaseFault[]): object {
  const {
    findings,
    ratios,
    arcs,
    asymmetries,
    hints,
    patterns,
    changes,
    blocked,
    rescreen,
    nextTest,
    capacities,
  } = report;
  return rounded({
    findings,
    ratios,
    arcs,
    asymmetries,
    hints,
    patterns,
    changes,
    blocked,
    rescreen,
    nextTest,
    capacities,
    warnings,
  }) as object;
}

/** The document `build` prints. */
export function buildOutput(report: BuildReport): object {
  const infeasible = report.infeasible?.map((clash) => ({
    ...clash,
    explanation: infeasibleText(bundledReference, clash),
  }));
  return rounded({
    routine: report.routine,
    general: report.general,
    unserved: report.unserved.map((u) => ({ ...u, because: [reasonText(bundledReference, u.because)] })),
    unused: report.unused && {
      ...report.unused,
      because: report.unused.because.map((reason) => reasonText(bundledReference, reason)),
    },
    dayRules: report.dayRules,
    warnings: report.warnings,
    infeasible: infeasible ?? null,
    blocked: report.blocked,
  }) as object;
}

/** The document `progress` prints. */
export function progressOutput(report: ProgressReport): object {
  return rounded(report) as object;
}

/** The reference in force as one document, for programs that read routines and cases. */
export function referenceOutput({ data }: Reference): object {
  const {
    drills,
    ladders,
    restrictions,
    tests,
    demands,
    patterns,
    precautions,
    schools,
    structures,
    renamed,
  } = data;
  return {
    drills,
    ladders,
    restrictions,
    tests,
    tasks: demands,
    actions: patterns,
    structures: structures.structures,
    precautions,
    schools,
    renamed,
  };
}
