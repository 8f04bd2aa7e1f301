import type { ResultInput, ResultRow } from '@yonder/core/contracts';
import type { ScreeningResult } from '@yonder/core/domain';
import { gradeFromFaults, isOrdinal, isPlausible, ratingFloor, trialSpread } from '@yonder/core/measure';
import type { Test } from '@yonder/core/reference';
import { figure, unitWord } from '@yonder/core/words';
import { z } from 'zod';
import { readNumber } from '../../app/readNumber.ts';
import { inTestUnit } from './convert.ts';
import type { Measured } from './convert.ts';

export type Mark = NonNullable<ScreeningResult['faults']>[0];
type Pain = NonNullable<ScreeningResult['pain']>;

/** What is typed for one side of a test: one text per trial, what was seen, and the pain beside it. */
export interface SideEntry {
  readonly trials: readonly string[];
  /** Trials that do not count, by their field, and why. */
  readonly struck: readonly { readonly trial: number; readonly reason: string }[];
  readonly pain: string;
  readonly aspect: Pain['aspect'] | '';
  readonly feel: Pain['feel'] | '';
  /** Marked faults; null while nobody has looked. */
  readonly faults: readonly Mark[] | null;
  /** Could not do it, or stopped for pain. */
  readonly unable: boolean;
  /** Counted on the balance clock, which goes on. */
  readonly touchDowns: number | null;
  readonly second: ScreeningResult['second'] | null;
  /** How the trials are read, where not in the unit of the test. */
  readonly measured: Measured | null;
}

export const EMPTY_ENTRY: SideEntry = {
  trials: [],
  struck: [],
  pain: '',
  aspect: '',
  feel: '',
  faults: null,
  unable: false,
  touchDowns: null,
  second: null,
  measured: null,
};

/** Does the grade follow from marked faults alone? Then nothing is typed. */
export function gradedByFaults(test: Test): boolean {
  return test.gradingRule?.kind === 'fault-count';
}

/** Why a typed trial cannot be taken, with what would be right; null when it can (or is still empty). */
export function trialFault(
  test: Test,
  text: string,
  { faults, measured }: Pick<SideEntry, 'faults' | 'measured'> = EMPTY_ENTRY,
): string | null {
  if (text.trim() === '') return null;
  const reading = readNumber(text);
  const { min, max } = test.plausible;
  if (reading === null) return 'not a number';
  const value = measured ? inTestUnit(test, measured, reading) : reading;
  if (value === null) return 'type the lever arm first';
  const outside = `outside ${min} to ${max} ${unitWord(test.unit)}`;
  if (!isPlausible(test, value)) return measured ? `${figure(value, test.unit)} is ${outside}` : outside;
  const floor = ratingFloor(test, faults ?? []);
  return value < floor ? `at least ${floor}: clear faults are marked` : null;
}

export function painFault(text: string): string | null {
  if (text.trim() === '') return null;
  const value = readNumber(text);
  return value !== null && value >= 0 && value <= 10 ? null : '0 to 10';
}

/** The readable trials of an entry, in order: as read, in the unit of the test, and the field of each. */
function readable(test: Test, entry: SideEntry): { value: number; reading: number; field: number }[] {
  return entry.trials.flatMap((text, field) => {
    const reading = trialFault(test, text, entry) === null ? readNumber(text) : null;
    if (reading === null) return [];
    const value = entry.measured ? inTestUnit(test, entry.measured, reading) : reading;
    return value === null ? [] : [{ value, reading, field }];
  });
}

/** Was the trial in this field struck out? */
export function struckOut(entry: SideEntry, field: number): boolean {
  return entry.struck.some((one) => one.trial === field);
}

/** The trials of an entry that count, in order. */
export function trialValues(test: Test, entry: SideEntry): number[] {
  return readable(test, entry)
    .filter(({ field }) => !struckOut(entry, field))
    .map(({ value }) => value);
}

/**
 * How many trial fields to show: as many as the test asks, one more where they lie too far apart, and one for each that
 * was struck out. One for a grade by eye, none where the grade follows from faults.
 */
export function trialFields(test: Test, entry: SideEntry): number {
  if (gradedByFaults(test)) return 0;
  if (isOrdinal(test)) return 1;
  const values = trialValues(test, entry);
  const filled = values.length >= test.trials.count;
  const another = filled && trialSpread(test, values).askAnother ? 1 : 0;
  return Math.max(test.trials.count + another + entry.struck.length, entry.trials.length);
}

/** The grade of an entry whose test is graded by faults; null while nobody has looked. */
export function entryGrade(test: Test, entry: SideEntry): number | null {
  if (!gradedByFaults(test) || (entry.faults === null && !entry.unable)) return null;
  return gradeFromFaults(test, entry.faults ?? [], entry.unable);
}

/** How the trials of a result were read, and what was read: kept beside the values in the unit of the test. */
const asReadSchema = z.object({
  readIn: z.enum(['cm', 'N']),
  per: z.number().positive(),
  lever: z.number().positive().nullable(),
  readings: z.array(z.number()),
});

export function entryOf(row: ResultRow | undefined): SideEntry {
  if (!row) return EMPTY_ENTRY;
  const { data: read } = asReadSchema.safeParse(row.raw);
  const asRead = read && read.readings.length === row.trials?.length ? read : null;
  const trials = asRead?.readings ?? row.trials ?? (row.grade === undefined || row.faults ? [] : [row.grade]);
  const touchDowns = row.raw?.touchDowns;
  return {
    trials: trials.map(String),
    struck: row.struck ?? [],
    pain: row.pain ? String(row.pain.nrs) : '',
    aspect: row.pain?.aspect ?? '',
    feel: row.pain?.feel ?? '',
    faults: row.faults ?? null,
    unable: row.unable ?? false,
    touchDowns: typeof touchDowns === 'number' ? touchDowns : null,
    second: row.second ?? null,
    measured: asRead ? { unit: asRead.readIn, per: asRead.per, lever: asRead.lever } : null,
  };
}

/** The part of a result that holds its value; null when there is none yet. */
function valueOf(
  test: Test,
  entry: SideEntry,
): Pick<ResultInput, 'trials' | 'struck' | 'grade' | 'faults' | 'unable'> | null {
  const seen = entry.faults === null ? {} : { faults: [...entry.faults] };
  if (gradedByFaults(test)) {
    const grade = entryGrade(test, entry);
    if (grade === null) return null;
    return { faults: [...(entry.faults ?? [])], grade, ...(entry.unable ? { unable: true } : {}) };
  }
  const typed = readable(test, entry);
  const last = typed.at(-1);
  if (last === undefined) return null;
  if (isOrdinal(test)) return { grade: last.value, ...seen };
  const struck = typed.flatMap(({ field }, trial) =>
    entry.struck.filter((one) => one.trial === field).map(({ reason }) => ({ trial, reason })),
  );
  return { trials: typed.map(({ value }) => value), ...(struck.length > 0 ? { struck } : {}), ...seen };
}

/** What stands beside the value: touch-downs, and readings as they were typed; null when there is none of it. */
function rawOf(test: Test, { measured, ...entry }: SideEntry): ResultInput['raw'] | null {
  const readings = readable(test, { ...entry, measured }).map(({ reading }) => reading);
  const asRead: z.infer<typeof asReadSchema> | null =
    measured && readings.length > 0
      ? { readIn: measured.unit, per: measured.per, lever: measured.lever, readings }
      : null;
  if (entry.touchDowns === null && !asRead) return null;
  return { ...(entry.touchDowns === null ? {} : { touchDowns: entry.touchDowns }), ...asRead };
}

/** What is stored of an entry, without its version; null when nothing is entered. */
export function resultOf(test: Test, entry: SideEntry): Omit<ResultInput, 'version'> | null {
  const value = valueOf(test, entry);
  if (!value) return null;
  const nrs = readNumber(entry.pain);
  const place = {
    ...(entry.aspect ? { aspect: entry.aspect } : {}),
    ...(entry.feel ? { feel: entry.feel } : {}),
  };
  const raw = rawOf(test, entry);
  return {
    ...value,
    ...(nrs === null ? {} : { pain: { nrs, ...(nrs > 0 ? place : {}) } }),
    ...(raw === null ? {} : { raw }),
    ...(entry.second ? { second: entry.second } : {}),
  };
}

/** The same stored value? Then there is nothing to store. */
export function sameAsStored(test: Test, entry: SideEntry, row: ResultRow | undefined): boolean {
  return JSON.stringify(resultOf(test, entry)) === JSON.stringify(resultOf(test, entryOf(row)));
}

/** Marks a fault absent, slight or clear; having looked is part of it. */
export function withMark(entry: SideEntry, fault: string, mark: Mark['mark'] | null): SideEntry {
  const rest = (entry.faults ?? []).filter((m) => m.id !== fault);
  return { ...entry, faults: mark === null ? rest : [...rest, { id: fault, mark }] };
}
