import type { AthleteSummary } from '@yonder/core/contracts';

export const SORTS = ['name', 'sport', 'severity', 'screened', 'rescreen'] as const;
export type SortKey = (typeof SORTS)[number];

/** Quick filters of the list, each a question a practitioner has in the morning. */
export const FILTERS = {
  stop: { label: 'Stop and refer', holds: (a: AthleteSummary) => a.blocked },
  review: { label: 'Precaution review due', holds: (a: AthleteSummary) => a.reviewsDue > 0 },
  rescreen: {
    label: 'Rescreen could change a choice',
    holds: (a: AthleteSummary) => a.todo.some((todo) => todo.kind === 'rescreen'),
  },
  never: { label: 'Never screened', holds: (a: AthleteSummary) => a.lastScreening === null },
  better: { label: 'Really better', holds: (a: AthleteSummary) => a.real.better > 0 },
  worse: { label: 'Really worse', holds: (a: AthleteSummary) => a.real.worse > 0 },
  youth: { label: 'Under 16', holds: (a: AthleteSummary) => a.age < 16 },
} as const;
export type FilterKey = keyof typeof FILTERS;

export interface ListView {
  readonly text: string;
  readonly filters: readonly FilterKey[];
  readonly sort: SortKey;
  readonly down: boolean;
}

/** The worst severity among what is listed; 0 when nothing is short. */
function worstSeverity(athlete: AthleteSummary): number {
  return Math.max(0, ...athlete.restrictions.map((r) => r.severity));
}

function keyOf(athlete: AthleteSummary, sort: SortKey): string | number | null {
  if (sort === 'severity') return worstSeverity(athlete);
  if (sort === 'screened') return athlete.lastScreening;
  if (sort === 'rescreen') return athlete.rescreenDue;
  return sort === 'sport' ? athlete.sport.toLowerCase() : athlete.name.toLowerCase();
}

/** Athletes that match the text and every filter, sorted; those without a value come last, ties by name. */
export function viewAthletes(
  athletes: readonly AthleteSummary[],
  { text, filters, sort, down }: ListView,
): AthleteSummary[] {
  const wanted = text.trim().toLowerCase();
  const shown = athletes.filter(
    (a) =>
      `${a.name} ${a.sport}`.toLowerCase().includes(wanted) && filters.every((key) => FILTERS[key].holds(a)),
  );
  const direction = down ? -1 : 1;
  return shown.sort((a, b) => {
    const x = keyOf(a, sort);
    const y = keyOf(b, sort);
    if (x === null || y === null) return Number(x === null) - Number(y === null);
    return x < y ? -direction : x > y ? direction : a.name < b.name ? -1 : a.name > b.name ? 1 : 0;
  });
}
