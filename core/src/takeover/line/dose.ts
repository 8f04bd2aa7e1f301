import type { Reader } from './reader.ts';

/** A dose as it is written: what is not said is null. */
export interface WrittenDose {
  readonly sets: number | null;
  /** The most of a range of sets, where one is written. */
  readonly setsTo: number | null;
  readonly amount: number | null;
  /** The least of a range. */
  readonly amountFrom: number | null;
  /** What the amount counts, where it is said. */
  readonly unit: Unit | null;
  /** The amount of each set, where they differ or are written one by one. */
  readonly amounts: readonly number[] | null;
}

/** Repetitions, seconds, metres, breaths, lengths of a lane. */
type Unit = 'reps' | 's' | 'm' | 'breaths' | 'lengths';

/** A dose that says nothing. */
export const NO_DOSE: WrittenDose = {
  sets: null,
  setsTo: null,
  amount: null,
  amountFrom: null,
  unit: null,
  amounts: null,
};

const UNITS: Readonly<Record<string, Unit>> = { s: 's', m: 'm', r: 'reps', b: 'breaths', len: 'lengths' };
const NUM = '\\d+(?:\\.\\d+)?';
const UNIT = '(s|m|r|b|len)?(?![a-z0-9°%.])';
const AMOUNT = `(${NUM})(?:-(${NUM}))?${UNIT}`;
const START = '(?<![\\d.:/_a-z-])';

/** "3x8-10": sets and an amount, as one pattern with five groups. */
export const SETS_AND_AMOUNT = `(\\d+)(?:-(\\d+))?x${AMOUNT}`;

const BY_SETS = new RegExp(`${START}${SETS_AND_AMOUNT}`, 'i');
const SETS_REPS_HOLD = new RegExp(`${START}(\\d+)x(\\d+)x(\\d+)s(?![a-z])`, 'i');
const AMOUNT_FIRST = new RegExp(
  `${START}(${NUM})(?:-(${NUM}))?(s|m|r|b|len)x(\\d+)(?:set|r)?(?![a-z\\d])`,
  'i',
);
const REPS_BY_SETS = new RegExp(`${START}(${NUM})(?:-(${NUM}))?(s|m|r|b|len)?x(\\d+)set(?![a-z])`, 'i');
const SERIES = /(?<![\d.:/_a-z-])(\d+)((?:\s*[-/,]\s*\d+){2,7})(?![\d%°a-z/.-]|\s*%)(r|s)?/i;
const SETS = /(?<![\d.:/_a-z-])(\d+)(?:-(\d+))?set(?![a-z])/i;
const COUNTED = new RegExp(`${START}(${NUM})(?:-(${NUM}))?(s|m|r|b|len)(?![a-z0-9°%])`, 'i');
const TIMES = new RegExp(`(?:^|[\\s,(])x\\s?${AMOUNT}`, 'i');
const TIMES_AFTER = new RegExp(`(?:^|[\\s,(])(${NUM})(?:-(${NUM}))?x(?=[\\s,]|$)`, 'i');
const BARE = new RegExp(`(?:^|[\\s,(])(${NUM})(?:-(${NUM}))?(?=\\s*(?:[,;()]|$))`, 'i');
const LEADING = new RegExp(`^[\\s,(]*(${NUM})(?:-(${NUM}))?(?=\\s+\\p{L})`, 'iu');

const numberOf = (text: string | undefined): number | null => (text === undefined ? null : Number(text));

/** A dose from its parts as they were found. */
export function doseFrom(
  sets: string | undefined,
  setsTo: string | undefined,
  from: string | undefined,
  to: string | undefined,
  unit: string | undefined,
): WrittenDose {
  const first = numberOf(from);
  const last = numberOf(to);
  const ranged = first !== null && last !== null && first < last;
  const most = numberOf(setsTo);
  const least = numberOf(sets);
  return {
    ...NO_DOSE,
    sets: least,
    setsTo: most !== null && least !== null && most > least ? most : null,
    amount: ranged ? last : first,
    amountFrom: ranged ? first : null,
    unit: UNITS[unit?.toLowerCase() ?? ''] ?? null,
  };
}

/** A written dose and what it says of the hold of each repetition. */
export interface DoseRead {
  readonly dose: WrittenDose;
  readonly holdSeconds: number | null;
}

/** The dose of a line in one writing (`inUnits`), taken out of it; the most telling way of writing first. */
export function takeDose(reader: Reader): DoseRead {
  const plain = (dose: WrittenDose): DoseRead => ({ dose, holdSeconds: null });
  const held = reader.take(SETS_REPS_HOLD);
  if (held)
    return {
      dose: doseFrom(held[1], undefined, held[2], undefined, 'r'),
      holdSeconds: numberOf(held[3]),
    };
  const bySets = reader.take(REPS_BY_SETS) ?? reader.take(AMOUNT_FIRST);
  if (bySets) return plain(doseFrom(bySets[4], undefined, bySets[1], bySets[2], bySets[3]));
  const both = reader.take(BY_SETS);
  if (both) return plain(doseFrom(both[1], both[2], both[3], both[4], both[5]));
  const series = reader.take(SERIES);
  if (series) {
    const amounts = `${series[1]}${series[2]}`.split(/\D+/).map(Number);
    return plain({
      ...NO_DOSE,
      sets: amounts.length,
      amount: Math.max(...amounts),
      amounts,
      unit: series[3] === undefined ? 'reps' : (UNITS[series[3].toLowerCase()] ?? null),
    });
  }
  const sets = reader.take(SETS);
  const counted = reader.take(COUNTED) ?? reader.take(TIMES) ?? reader.take(TIMES_AFTER);
  const found = counted ?? reader.take(BARE) ?? reader.take(LEADING);
  if (found) return plain(doseFrom(sets?.[1], sets?.[2], found[1], found[2], found[3]));
  return plain({ ...NO_DOSE, sets: numberOf(sets?.[1]), setsTo: numberOf(sets?.[2]) });
}
