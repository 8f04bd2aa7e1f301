import type { ScreeningResult } from '../domain/index.ts';
import type { Test } from '../reference/index.ts';
import { gradeFromFaults } from './trials.ts';

type Marks = readonly { readonly id: string; readonly mark: 'slight' | 'clear' }[];

/** Two raters' eyes on the same attempt. */
export interface RaterComparison {
  readonly grades: { readonly first: number | null; readonly second: number | null };
  /** Share of the test's listed faults marked alike, 0–1; null for a test without listed faults. */
  readonly agreement: number | null;
  /** Faults marked differently, with each mark or null. */
  readonly differing: readonly { id: string; first: string | null; second: string | null }[];
}

const markOf = (marks: Marks, id: string) => marks.find((mark) => mark.id === id)?.mark ?? null;

/** Compares what two raters marked; grades are set side by side, never averaged. Null without a second rater. */
export function compareRaters(
  test: Test,
  result: Pick<ScreeningResult, 'grade' | 'faults' | 'second'>,
): RaterComparison | null {
  if (!result.second) return null;
  const first = result.faults ?? [];
  const second = result.second.faults;
  const listed = test.faults ?? [];
  const differing = listed
    .map(({ id }) => ({ id, first: markOf(first, id), second: markOf(second, id) }))
    .filter((row) => row.first !== row.second);
  return {
    grades: {
      first: result.grade ?? gradeFromFaults(test, first),
      second: result.second.grade ?? gradeFromFaults(test, second),
    },
    agreement: listed.length === 0 ? null : 1 - differing.length / listed.length,
    differing,
  };
}
