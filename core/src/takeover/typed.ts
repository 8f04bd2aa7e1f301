import type { Prepared } from '../builder/index.ts';
import type { RoutineItem } from '../domain/index.ts';
import type { Reference } from '../reference/index.ts';
import { searchDrills } from '../search/index.ts';
import { readLine } from './line/readLine.ts';
import { inLibraryWords, matchWords } from './names/match.ts';
import { itemAs } from './reading.ts';
import { routineOfLines } from './routineOfLines.ts';
import { takeOver } from './takeOver.ts';

/** From what score on a drill that is named comes before all that are only found. */
const NAMED = 0.75;

/**
 * Drills for something typed, best first: what it names, as people name it and with a dose beside it, then what it looks for
 * (`searchDrills`). Null when nothing was typed.
 */
export function findDrills(reference: Reference, text: string, fill = 0): ReadonlyMap<string, number> | null {
  const words = readLine(text).words || text;
  const asIs = searchDrills(reference, words, fill) ?? searchDrills(reference, text, fill);
  if (!asIs) return null;
  const found =
    asIs.size > 0 ? asIs : (searchDrills(reference, inLibraryWords(reference, words), fill) ?? asIs);
  const most = Math.max(0, ...found.values());
  const named = matchWords(reference, words).candidates.filter(
    ({ score, against }) => score >= NAMED && !against,
  );
  return new Map([...found, ...named.map(({ drill, score }) => [drill, most + score] as const)]);
}

/** A drill with the dose that is typed beside its name; what is not typed is as the rules dose it. */
export function asTyped(prepared: Prepared, drill: string, text: string): RoutineItem {
  const known = prepared.reference.drills.get(drill);
  if (!known) throw new RangeError(`unknown drill ${drill}`);
  return itemAs(prepared, known, readLine(text), '').item;
}

/** Says a typed line something that is no drill: a rest, a caution, days? */
export function isSaying(text: string): boolean {
  const { caution, pause, days, remark } = readLine(text);
  return caution !== null || pause !== null || days !== null || remark;
}

/** A typed line in its own words, as it is done or read. */
export function inOwnWords(prepared: Prepared, text: string): RoutineItem[] {
  const lines = takeOver(prepared, text);
  return routineOfLines(
    prepared.reference,
    lines,
    lines.map(() => 'text' as const),
  ).items;
}
