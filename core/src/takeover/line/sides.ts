import { doseFrom, SETS_AND_AMOUNT } from './dose.ts';
import type { WrittenDose } from './dose.ts';
import type { Reader } from './reader.ts';

/** Which side a line names: one, or both one after the other. */
export type WrittenSide = 'left' | 'right' | 'both';

const LIMB =
  '(?:sides?|seiten?|legs?|beine?|arms?|arme|foot|feet|f(?:ü|ue)(?:ß|ss)e|fu(?:ß|ss)|hands?|h(?:ä|ae)nde|hand|ankles?|knees?|wrists?|hips?|shoulders?|elbows?|calf|calves|limb)';
const LEFT = '(?:left|links?|linkes?|li\\.?|l\\.?)';
const RIGHT = '(?:right|rechts?|rechtes?|re\\.?|r\\.?)';
const AND = '\\s*(?:\\/|\\+|&|,|and|und|then|u\\.?|-)\\s*';
const B = "(?<![\\p{L}\\d'])";
const E = "(?![\\p{L}\\d'])";

const DOSE = `(?:${SETS_AND_AMOUNT}|(\\d+)(?:-(\\d+))?(s|m|r|b)?(?![a-z\\d]))`;
const GAP = '[\\s,;/:&+]*(?:and|und)?[\\s,;/:&+]*';
const sided = (first: string, second: string) => [
  new RegExp(`${B}${first}${E}[\\s:=]*${DOSE}${GAP}${B}${second}${E}[\\s:=]*${DOSE}`, 'iu'),
  new RegExp(`(?<![\\d.:/_a-z-])${DOSE}\\s*\\(?${first}${E}\\)?${GAP}${DOSE}\\s*\\(?${second}${E}\\)?`, 'iu'),
];
const LEFT_FIRST = sided(LEFT, RIGHT);
const RIGHT_FIRST = sided(RIGHT, LEFT);

/** The dose in eight groups of a match from `at` on. */
function doseAt(found: RegExpExecArray, at: number): WrittenDose {
  const [sets, setsTo, from, to, unit, alone, aloneTo, aloneUnit] = found.slice(at, at + 8);
  return alone === undefined
    ? doseFrom(sets, setsTo, from, to, unit)
    : doseFrom(undefined, undefined, alone, aloneTo, aloneUnit);
}

/** "L 3x8-10 / R 2x8-10", "2x20s L, 1x20s R", "li 8 re 12": each side with a dose of its own. */
export function takeSideDoses(reader: Reader): { left: WrittenDose; right: WrittenDose } | null {
  for (const pattern of LEFT_FIRST) {
    const found = reader.take(pattern);
    if (found) return { left: doseAt(found, 1), right: doseAt(found, 9) };
  }
  for (const pattern of RIGHT_FIRST) {
    const found = reader.take(pattern);
    if (found) return { left: doseAt(found, 9), right: doseAt(found, 1) };
  }
  return null;
}

const OTHER =
  '(?:minute|min|sets?|rounds?|way|ways|direction|richtung|reps?|time|week|day|other|runde|tag|woche|satz)';
const EACH = [
  new RegExp(`\\/\\s*(?:${LIMB}|s|ea)${E}\\.?`, 'iu'),
  new RegExp(
    `${B}(?:on\\s+|on the\\s+)?(?:each|ea|ea\\.|per|every|je|jede[rs]?|pro|both|beide|auf jeder|auf beiden)\\.?\\s+${LIMB}${E}`,
    'iu',
  ),
  new RegExp(
    `${B}(?:e\\.\\s?s\\.?|p\\.\\s?s\\.?|bds\\.?|beids\\.?|beidseits|beidseitig|bilat\\.?|jeweils|b\\/l)(?![\\p{L}\\d])`,
    'iu',
  ),
  new RegExp(`(?<=\\d[a-z]{0,3}\\s?)${B}(?:es|ps|p\\/s)${E}`, 'iu'),
  new RegExp(`${B}${LEFT}${AND}${RIGHT}${E}`, 'iu'),
  new RegExp(`${B}${RIGHT}${AND}${LEFT}${E}`, 'iu'),
  new RegExp(`${B}(?:then )?(?:other|swap|change|switch) sides?${E}`, 'iu'),
  new RegExp(`${B}(?:each|ea\\.?|je)${E}(?!\\s*${OTHER}${E})`, 'iu'),
];
const ONE = new RegExp(
  `${B}(?:(?:only|nur)\\s+)?(?:on\\s+(?:the\\s+)?)?(${LEFT}|${RIGHT})${E}(?:\\s*${LIMB}${E})?(?:\\s*(?:only|nur)${E})?`,
  'iu',
);

/** The side that a line names, taken out of it; null where it names none. */
export function takeSide(reader: Reader): WrittenSide | null {
  for (const pattern of EACH) if (reader.take(pattern)) return 'both';
  const named = reader.take(ONE)?.[1]?.toLowerCase();
  return named === undefined ? null : named.startsWith('l') ? 'left' : 'right';
}

/** "10/10", "10 (5/5)": as many on each side, taken out; null where none is written so. */
export function takeEachSide(reader: Reader): number | null {
  const found = /(?<![\d/.:x-])(?:(\d{1,3})\s*\(\s*)?(\d{1,3})\s*\/\s*(\d{1,3})\s*\)?(?![\d/%.x]|\s*%)/i.exec(
    reader.rest,
  );
  if (!found || found[2] !== found[3]) return null;
  reader.take(/(?<![\d/.:x-])(?:(\d{1,3})\s*\(\s*)?(\d{1,3})\s*\/\s*(\d{1,3})\s*\)?(?![\d/%.x]|\s*%)/i);
  return Number(found[2]);
}
