import type { ResultRow } from '@yonder/core/contracts';
import { isPlausible, MAX_TRIALS, trialSpread } from '@yonder/core/measure';
import type { Test } from '@yonder/core/reference';
import { unitWord } from '@yonder/core/words';
import { readNumber } from '../../app/readNumber.ts';

/** What is typed for one side of a test: one text per trial, and the pain beside it. */
export interface SideEntry {
  readonly trials: readonly string[];
  readonly pain: string;
}

/** Why a typed trial cannot be taken, with what would be right; null when it can (or is still empty). */
export function trialFault(test: Test, text: string): string | null {
  if (text.trim() === '') return null;
  const value = readNumber(text);
  const { min, max } = test.plausible;
  if (value === null) return 'not a number';
  return isPlausible(test, value) ? null : `outside ${min} to ${max} ${unitWord(test.unit)}`;
}

export function painFault(text: string): string | null {
  if (text.trim() === '') return null;
  const value = readNumber(text);
  return value !== null && value >= 0 && value <= 10 ? null : '0 to 10';
}

/** The readable trials of an entry, in order. */
export function trialValues(test: Test, entry: SideEntry): number[] {
  return entry.trials
    .filter((text) => trialFault(test, text) === null)
    .map(readNumber)
    .filter((value) => value !== null);
}

/** How many trial fields to show: as many as the test asks, one more while the spread is too large, five at most. */
export function trialFields(test: Test, entry: SideEntry): number {
  const values = trialValues(test, entry);
  const filled = values.length >= test.trials.count;
  const wanted = filled && trialSpread(test, values).askAnother ? values.length + 1 : test.trials.count;
  return Math.min(MAX_TRIALS, Math.max(wanted, entry.trials.length));
}

export function entryOf(row: ResultRow | undefined): SideEntry {
  const trials = row?.trials ?? (row?.grade === undefined ? [] : [row.grade]);
  return { trials: trials.map(String), pain: row?.pain ? String(row.pain.nrs) : '' };
}

/** The same stored value? Then there is nothing to store. */
export function sameAsStored(test: Test, entry: SideEntry, row: ResultRow | undefined): boolean {
  const values = trialValues(test, entry);
  const stored = row?.trials ?? (row?.grade === undefined ? [] : [row.grade]);
  const pain = readNumber(entry.pain);
  return values.join() === stored.join() && (pain ?? null) === (row?.pain?.nrs ?? null);
}
