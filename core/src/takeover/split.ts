import type { Reference } from '../reference/index.ts';
import { readLine, unmarked } from './line/readLine.ts';
import type { WrittenLine } from './line/readLine.ts';
import { matchWords } from './names/match.ts';

/** How surely a part of a line must be a drill by itself for the line to be cut there. */
const SURE_PART = 0.9;

const LETTERS =
  /(?<![\p{L}\d])((?:[YTWLI](?:['’]?s)?)(?:(?:\s*[-/,&+]\s*|\s+(?:and\s+)?)[YTWLI](?:['’]?s)?){1,4}|[YTWLI]{3,5})(?:s|es)?(?![\p{L}\d])/u;
const BETWEEN = /\s*(?:,|;|\s\+\s|→|->|\bthen\b|\bdann\b)\s*(?![^()]*\))/i;
const JOINS = /\s*(?:\s\/\s|\/(?=\p{L}{3})|\s+(?:and|und|&)\s+)\s*(?![^()]*\))/iu;

/** Is a text a drill, or known as something that is none, by itself? */
function isWhole(reference: Reference, words: string): boolean {
  const { candidates, absent } = matchWords(reference, words);
  const [first] = candidates;
  return absent || (first !== undefined && first.score >= SURE_PART && !first.against);
}
function isDrill(reference: Reference, words: string): boolean {
  const { candidates, absent } = matchWords(reference, words);
  const [first] = candidates;
  return !absent && first !== undefined && first.score >= SURE_PART && !first.against;
}

/** "Y-T-W prone x8": a raise for each letter, with the rest of the line. */
function byLetters(text: string): string[] | null {
  const found = LETTERS.exec(text);
  if (!found || /^\s*band\b/i.test(text.slice(found.index + found[0].length))) return null;
  const letters = (found[1] ?? '').replace(/['’]?s\b/g, '').match(/[YTWLI]/g) ?? [];
  if (new Set(letters).size < 2) return null;
  const before = text.slice(0, found.index);
  const after = text.slice(found.index + found[0].length).replace(/^\s*raises?\b/i, '');
  return letters.map((letter) => `${before}${letter} raise ${after.replace(/^['’]?s\b/, '').trim()}`.trim());
}

/** "band ER/IR 15": out and in, each with the rest of the line. */
function byTurns(text: string): string[] | null {
  const found = /(?<![\p{L}\d])(ER|IR)\s*[/&+]\s*(ER|IR)(?![\p{L}\d])/iu.exec(text);
  return found && found[1] !== found[2]
    ? [found[1], found[2]].map((one) => text.replace(found[0], one ?? ''))
    : null;
}

/** "throws: 8 @ 10 m, 5 @ 30 m", "foam roll: calves, quads 1 min": what is before the colon holds for each part. */
function byHead(reference: Reference, text: string): string[] | null {
  const [, front = '', behind = ''] = /^([^:]{3,40}?)\s*:\s+(.+)$/.exec(text) ?? [];
  const parts = behind.split(BETWEEN).filter((part) => part.trim() !== '');
  if (parts.length < 2) return null;
  const lines = parts.map((part) => readLine(part));
  if (lines.every(({ words }) => words === '') && isDrill(reference, front))
    return parts.map((part) => `${front} ${part}`);
  const own = lines.filter(({ words }) => words !== '');
  const headed = own.every(
    ({ words }) => isWhole(reference, `${front} ${words}`) && !isDrill(reference, words),
  );
  return headed ? parts.map((part) => `${front} ${part}`) : null;
}

const says = ({ dose, perSide, holdSeconds }: WrittenLine) =>
  dose.amount !== null || dose.sets !== null || perSide !== null || holdSeconds !== null;

/** A list on one line, where each part is something by itself and the whole is nothing: "squat, plank, bird dog". */
function byMarks(reference: Reference, text: string, words: string): string[] | null {
  if (isDrill(reference, words)) return null;
  for (const mark of [BETWEEN, JOINS]) {
    const parts = text.split(mark).filter((part) => part.trim() !== '');
    const lines = parts.map((part) => readLine(part));
    const said = lines.map((line) => line.words);
    // What says no dose after one that does is said beside it.
    const dosed = lines.map(says);
    if (dosed.some((own, i) => own && dosed[i + 1] === false)) continue;
    const drills = said.filter((part) => part !== '' && isDrill(reference, part)).length;
    const all = said.every((part) => part !== '' && isWhole(reference, part));
    if (parts.length > 1 && all && drills > 0 && (mark === BETWEEN || drills === parts.length)) return parts;
  }
  return null;
}

/** Parts of a line with what only the last of them says of all: "squats, lunges, planks 3x10". */
function sharing(lines: WrittenLine[]): WrittenLine[] {
  const last = lines.at(-1);
  if (!last || !says(last) || lines.slice(0, -1).some(says)) return lines;
  return lines.map((line) => ({
    ...last,
    raw: line.raw,
    words: line.words,
    negated: line.negated,
    side: line.side ?? last.side,
    dose: says(line) ? line.dose : last.dose,
  }));
}

/**
 * What stands on a line of paper, one after the other: a head and what it heads, the parts of a list or of letters; mostly the
 * line itself.
 */
export function linesOf(reference: Reference, raw: string): WrittenLine[] {
  const line = readLine(raw);
  if (line.tail !== '') return [{ ...line, tail: '' }, ...linesOf(reference, line.tail)];
  if (line.head ?? line.caution ?? line.days ?? line.pause !== null) return [line];
  const { text, superset, at } = unmarked(raw);
  if (line.remark) {
    const stations = text.split(/\s*(?:->|→|⇒|>)\s*/).filter((part) => part.trim() !== '');
    return stations.length > 1 &&
      !text.includes('?') &&
      stations.every((part) => isDrill(reference, readLine(part).words))
      ? sharing(stations.map(readLine))
      : [line];
  }
  const parts =
    byLetters(text) ?? byTurns(text) ?? byHead(reference, text) ?? byMarks(reference, text, line.words);
  if (!parts) return [line];
  return sharing(parts.map((part) => ({ ...readLine(part), superset, at })));
}

/** Does a line say nothing but how the one before it is done? */
export function onlyDose(line: WrittenLine): boolean {
  const {
    words,
    head,
    pause,
    caution,
    days,
    dose,
    holdSeconds,
    restSeconds,
    tempo,
    side,
    holdBreaths,
    perSide,
    load,
  } = line;
  const says =
    dose.amount ?? dose.sets ?? holdSeconds ?? holdBreaths ?? restSeconds ?? tempo ?? side ?? perSide ?? load;
  return (
    words === '' && head === null && pause === null && caution === null && days === null && says !== null
  );
}

/** A line with what the next one adds to it; what it said itself stands. */
export function withAdded(line: WrittenLine, added: WrittenLine): WrittenLine {
  return {
    ...line,
    dose: line.dose.amount === null ? { ...added.dose, sets: added.dose.sets ?? line.dose.sets } : line.dose,
    perSide: line.perSide ?? added.perSide,
    side: line.side ?? added.side,
    holdSeconds: line.holdSeconds ?? added.holdSeconds,
    holdBreaths: line.holdBreaths ?? added.holdBreaths,
    restSeconds: line.restSeconds ?? added.restSeconds,
    tempo: line.tempo ?? added.tempo,
    load: line.load ?? added.load,
    bothWays: line.bothWays || added.bothWays,
    asMany: line.asMany || added.asMany,
  };
}
