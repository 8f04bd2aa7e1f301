import { readDay } from '../domain/index.ts';
import type { DayOrder, ScreeningResult, Side } from '../domain/index.ts';
import { isOrdinal } from '../measure/index.ts';
import type { Reference, Test } from '../reference/index.ts';
import { resultFaults } from './caseFaults.ts';

/** Fields of a row in a file of screenings: one test and side of one athlete on one day. */
export const CSV_FIELDS = [
  'athlete',
  'date',
  'test',
  'side',
  'trial 1',
  'trial 2',
  'trial 3',
  'trial 4',
  'trial 5',
  'grade',
  'pain',
  'aspect',
  'feel',
] as const;
/** A column that a file of screenings can have. */
export type CsvField = (typeof CSV_FIELDS)[number];
const REQUIRED: readonly CsvField[] = ['athlete', 'date', 'test'];
const TRIALS = CSV_FIELDS.filter((field) => field.startsWith('trial'));

/** Which column of the file holds a field; null where the file has none. */
export type CsvMapping = Readonly<Record<CsvField, string | null>>;

/** A row read: whose result, of which day. */
export interface ImportRow {
  readonly athleteId: string;
  readonly date: string;
  readonly result: ScreeningResult;
}

/** What is wrong with a row, numbered as in the file (the heading is row 1). */
export interface RowFault {
  readonly row: number;
  readonly message: string;
}

const plain = (text: string) =>
  text
    .trim()
    .toLowerCase()
    .replaceAll(/[\s_-]+/g, ' ');

/** Columns that carry a field's own name, whatever the case or the hyphens. */
export function guessMapping(columns: readonly string[]): CsvMapping {
  const find = (field: CsvField) => columns.find((column) => plain(column) === plain(field)) ?? null;
  return Object.fromEntries(CSV_FIELDS.map((field) => [field, find(field)])) as CsvMapping;
}

/** Fields that a mapping still lacks before anything can be read. */
export function missingFields(mapping: CsvMapping): CsvField[] {
  const lacking = REQUIRED.filter((field) => mapping[field] === null);
  const value = mapping['trial 1'] !== null || mapping.grade !== null;
  return value ? lacking : [...lacking, 'trial 1'];
}

/** A name that begins like a formula must not run in a spreadsheet: it gets a mark, which is taken off when it is read. */
const guarded = (name: string) => (/^[=+\-−@\t\r]/.test(name) ? `'${name}` : name);
const unguarded = (name: string) => name.replace(/^'(?=[=+\-−@])/, '');

/** "7,2" and "7.2" are the same number; null when it is none. */
function readValue(text: string): number | null {
  const tidy = text.trim().replace(',', '.').replace('−', '-');
  return /^-?(\d+\.?\d*|\.\d+)$/.test(tidy) ? Number(tidy) : null;
}

const SIDE_WORDS: Readonly<Record<string, Side>> = {
  left: 'left',
  l: 'left',
  right: 'right',
  r: 'right',
  central: 'central',
  c: 'central',
  '': 'central',
};

interface Reading {
  readonly cell: (field: CsvField) => string;
  readonly say: (message: string) => void;
}

function readNumbers({ cell, say }: Reading, fields: readonly CsvField[]): number[] {
  return fields.flatMap((field) => {
    const text = cell(field);
    if (text === '') return [];
    const value = readValue(text);
    if (value === null) say(`${field} "${text}" is not a number`);
    return value === null ? [] : [value];
  });
}

function readResult(reading: Reading, test: Test, side: Side): ScreeningResult {
  const trials = readNumbers(reading, TRIALS);
  const [grade] = readNumbers(reading, ['grade']);
  const [nrs] = readNumbers(reading, ['pain']);
  const aspect = reading.cell('aspect').toLowerCase();
  const feel = plain(reading.cell('feel')).replace(' ', '-');
  const given = isOrdinal(test) ? (grade ?? trials.at(-1)) : undefined;
  const place = { ...(aspect ? { aspect } : {}), ...(feel ? { feel } : {}) };
  return {
    test: test.id,
    side,
    ...(given === undefined ? { trials } : { grade: given }),
    ...(nrs === undefined ? {} : { pain: { nrs, ...place } }),
  } as ScreeningResult;
}

/**
 * Reads rows of a file of screenings: athletes by name, tests by name or id, sides as words or letters, decimals with
 * point or comma. Every faulty row is named; `rows` holds the sound ones. A file is imported only when none is faulty.
 */
export function readScreeningRows(
  reference: Reference,
  athletes: readonly { id: string; name: string }[],
  cells: readonly Readonly<Record<string, string | undefined>>[],
  mapping: CsvMapping,
  order: DayOrder = 'day-first',
): { rows: ImportRow[]; faults: RowFault[] } {
  const tests = new Map(
    reference.data.tests.flatMap((t) => [[t.id, t] as const, [plain(t.name), t] as const]),
  );
  const rows: ImportRow[] = [];
  const faults: RowFault[] = [];
  const seen = new Map<string, number>();
  cells.forEach((record, index) => {
    const row = index + 2;
    const before = faults.length;
    const say = (message: string) => faults.push({ row, message });
    const cell = (field: CsvField) => (record[mapping[field] ?? ''] ?? '').trim();
    const named = athletes.filter((a) => plain(a.name) === plain(unguarded(cell('athlete'))));
    if (named.length !== 1)
      say(
        named.length === 0
          ? `no athlete "${cell('athlete')}"`
          : `${named.length} athletes "${cell('athlete')}"`,
      );
    const date = readDay(cell('date'), order) ?? '';
    if (!date) say(`date "${cell('date')}" is no day; write 2027-03-14, 14.3.2027 or 14 Mar 2027`);
    const test = tests.get(cell('test')) ?? tests.get(plain(cell('test')));
    if (!test) say(`no test "${cell('test')}"`);
    const side = SIDE_WORDS[cell('side').toLowerCase()];
    if (side === undefined) say(`side "${cell('side')}" is not left, right or central`);
    if (!test || side === undefined) return;
    const result = readResult({ cell, say }, test, side);
    for (const fault of resultFaults(reference, result)) say(fault.message);
    const key = `${named[0]?.id}/${date}/${test.id}/${side}`;
    const first = seen.get(key);
    if (first === undefined) seen.set(key, row);
    else say(`same athlete, day, test and side as row ${first}`);
    const athlete = named[0];
    if (faults.length === before && athlete) rows.push({ athleteId: athlete.id, date, result });
  });
  return { rows, faults };
}

/** One row of an exported file, by field, in the form that is read back. */
export function screeningCsvRow(
  reference: Reference,
  athlete: string,
  date: string,
  result: ScreeningResult,
): Record<CsvField, string> {
  const trials = Object.fromEntries(TRIALS.map((field, i) => [field, String(result.trials?.[i] ?? '')]));
  return {
    athlete: guarded(athlete),
    date,
    test: reference.tests.get(result.test)?.name ?? result.test,
    side: result.side,
    ...(trials as Record<'trial 1' | 'trial 2' | 'trial 3' | 'trial 4' | 'trial 5', string>),
    grade: String(result.grade ?? ''),
    pain: String(result.pain?.nrs ?? ''),
    aspect: result.pain?.aspect ?? '',
    feel: result.pain?.feel ?? '',
  };
}
