import type { ReferenceEdit } from '@yonder/core/domain';
import type { Reference, Test } from '@yonder/core/reference';
import { figure } from '@yonder/core/words';

/** One figure of a test that a practice can edit, as the page lists it. */
export interface EditableFigure {
  readonly path: ReferenceEdit['path'];
  readonly task?: string;
  readonly label: string;
  readonly value: number | null;
  readonly unit: string;
}

const LABEL: Readonly<Record<Exclude<ReferenceEdit['path'], 'demand'>, string>> = {
  deficitBelow: 'Short below',
  deficitAbove: 'Short above',
  asymmetry: 'Sides differ by',
  sem: 'Measurement error (SEM)',
  spreadLimit: 'Spread of trials',
  cvLimitPercent: 'Spread of trials (CV)',
  processSdPerWeek: 'Wanders per week',
};

/** The figures of a test that can be edited: cut-offs, limits, error, and what each task asks of it. */
export function editableFigures(reference: Reference, test: Test): EditableFigure[] {
  const { unit } = test;
  const ordinal = unit === 'grade-0-3' || unit === 'points-0-5' || unit === 'nrs-0-10';
  const row = (
    path: keyof typeof LABEL,
    value: number | null | undefined,
    own: string = unit,
  ): EditableFigure[] =>
    value === null || value === undefined ? [] : [{ path, label: LABEL[path], value, unit: own }];
  const { deficit, asymmetry } = test.flag;
  const demands = reference.data.demands.flatMap((task) =>
    task.demands
      .filter((demand) => demand.test === test.id)
      .map((demand): EditableFigure => ({
        path: 'demand',
        task: task.id,
        label: `Asked by ${task.name}`,
        value: demand.value,
        unit,
      })),
  );
  return [
    ...row('deficitBelow', deficit?.below),
    ...row('deficitAbove', deficit?.above),
    ...row('asymmetry', asymmetry?.threshold, asymmetry?.kind === 'lsi-percent' ? '%' : unit),
    ...(ordinal
      ? []
      : [
          ...row('sem', test.sem.value),
          ...row('spreadLimit', test.spreadLimit?.value),
          ...row('cvLimitPercent', test.cvLimitPercent, '%'),
          ...row('processSdPerWeek', test.processSdPerWeek.value),
        ]),
    ...demands,
  ];
}

/** A figure with its unit, with the decimals it needs. */
export function figureText(value: number | null, unit: string): string {
  if (value === null) return 'none';
  if (unit === '%') return `${value} %`;
  const plain = figure(value, unit);
  // Errors are finer than results: never round them away.
  return Number.isInteger(value * 10) || unit === 'N/kg' || unit === 'Nm/kg'
    ? plain
    : `${String(value).replace('-', '−')} ${unit === 'deg' ? '°' : unit}`;
}
