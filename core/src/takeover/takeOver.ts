import type { Prepared } from '../builder/index.ts';
import type { RoutineItem } from '../domain/index.ts';
import { TIMING } from '../dose/index.ts';
import type { OwnMeasure } from '../reference/index.ts';
import { cautionLine, ownDrill, restLine, wordsLine } from '../routine/index.ts';
import { unmarked } from './line/readLine.ts';
import type { WrittenLine } from './line/readLine.ts';
import { clamp } from './line/reader.ts';
import { besides, hasFigures, readingsOf, withBothWays } from './reading.ts';
import type { Reading } from './reading.ts';
import { linesOf, onlyDose, withAdded } from './split.ts';

/**
 * How a line was understood. `sure`, `likely`: one drill; `choose`: it has to be chosen; `held`: safety keeps it out; `text`: kept
 * in its own words; `joined`: belongs to a line before; `rest`, `section`, `circuit`, `caution`, `days`: what they say.
 */
export type TakenKind =
  | 'sure'
  | 'likely'
  | 'choose'
  | 'held'
  | 'text'
  | 'joined'
  | 'rest'
  | 'section'
  | 'circuit'
  | 'caution'
  | 'days';

/** One line of paper, or one part of a line, and what became of it; every line has one. */
export interface TakenLine {
  readonly written: WrittenLine;
  /** The line of paper as it stands there; a line in parts gives it with each. */
  readonly paper: string;
  /** The place of the line on the paper, from 0, empty lines left out. */
  readonly row: number;
  readonly kind: TakenKind;
  /** Ways to understand it, best first; those of a line kept in its own words are offers. */
  readonly readings: readonly Reading[];
  /** The line as own words, or as a rest. */
  readonly asText: RoutineItem;
  /** Place of the line it belongs to. */
  readonly joins: number | null;
  /** An empty line stands before it: what was done in rounds is over. */
  readonly afterGap: boolean;
}

/** From what score on a line that is not understood word for word is likely a drill, or has to be chosen; how near the next may be. */
const CONFIDENCE = { likely: 0.8, choose: 0.6, apart: 0.02, against: 0.5 } as const;
/** Most characters of a line: words are stored up to 300, and "Not now: " may come before them. */
export const MOST_OF_A_LINE = 280;
/** Seconds that something done in turn is taken to last where nothing says how long: an estimate. */
const SECONDS_UNSAID = 30;
/** Seconds of a rest whose length nobody wrote. */
const REST_UNSAID = 60;

/** A line in pieces that can be stored, broken between words where it can be. Nothing is lost. */
function piecesOf(line: string): string[] {
  const pieces: string[] = [];
  let rest = line;
  while (rest.length > MOST_OF_A_LINE) {
    const space = rest.lastIndexOf(' ', MOST_OF_A_LINE);
    // A pair of halves that make one character stays together.
    const whole = /[\uD800-\uDBFF]$/.test(rest.slice(0, MOST_OF_A_LINE))
      ? MOST_OF_A_LINE - 1
      : MOST_OF_A_LINE;
    const at = space > 0 ? space : whole;
    pieces.push(rest.slice(0, at));
    rest = rest.slice(at).trimStart();
  }
  return [...pieces, rest];
}

interface Understood {
  readonly kind: TakenKind;
  readonly readings: readonly Reading[];
  /** Known as something that no drill is. */
  readonly absent: boolean;
}

function understood(prepared: Prepared, written: WrittenLine): Understood {
  const { readings, absent, either } = readingsOf(prepared, written);
  const [first, second] = readings;
  const kindOf = (): TakenKind => {
    if (!first || absent) return 'text';
    if (either && second) return 'choose';
    if (first.against) return first.score >= CONFIDENCE.against ? 'choose' : 'text';
    const near = second !== undefined && !second.against && first.score - second.score < CONFIDENCE.apart;
    if (first.score < CONFIDENCE.choose) return 'text';
    if (first.held) return 'held';
    if (near && (second.exact || !first.exact) && !first.open) return 'choose';
    const plain = !first.turned && !hasFigures(written.words) && written.negated === '';
    if (first.exact && first.whole && plain && !first.open) return 'sure';
    if (first.strange) return 'choose';
    return first.exact || first.open || first.score >= CONFIDENCE.likely ? 'likely' : 'choose';
  };
  return { kind: kindOf(), readings, absent };
}

const MEASURES: Readonly<Record<string, OwnMeasure>> = {
  s: 'seconds',
  m: 'metres',
  breaths: 'seconds',
  lengths: 'metres',
};
/** Seconds of a breath and metres of a length, to dose own words in. */
const EACH: Readonly<Record<string, number>> = { breaths: TIMING.breath, lengths: 10 };

/** A line in its own words, done as its dose says; without a dose it is only read, unless it is known as something that is done. */
function ownWords(written: WrittenLine, words: string, done: boolean): RoutineItem {
  const { dose, perSide, holdSeconds, restSeconds, side, tempo, ledBy } = written;
  const led = ledBy ? { ledBy } : {};
  const each = dose.unit === null ? 1 : (EACH[dose.unit] ?? 1);
  const counted = dose.amount === null ? null : dose.amount * each;
  const amount = counted ?? holdSeconds ?? (perSide ? perSide.left.amount : null);
  if (amount === null && !done) return { ...wordsLine(words, 0), ...led };
  const timed = counted === null && !perSide;
  const measure = timed ? 'seconds' : (MEASURES[(perSide?.left ?? dose).unit ?? ''] ?? 'reps');
  const bounded = (value: number | null) => clamp(value ?? SECONDS_UNSAID, 1, 1000);
  const sets = (value: number | null) => clamp(value ?? 1, 1, 20);
  // What the fields say is not said in the words again.
  const bare = written.words !== '' && !led.ledBy ? written.words.slice(0, MOST_OF_A_LINE) : words;
  const note = [...besides(null, written, false), ...(amount === null ? ['how long is estimated'] : [])]
    .join('; ')
    .slice(0, 500);
  const ranged = dose.amountFrom !== null && counted !== null && dose.amountFrom * each < counted;
  return {
    ...ownDrill(bare, measure, side !== null || perSide !== null, {
      sets: sets(perSide?.left.sets ?? dose.sets),
      amount: bounded(amount),
      ...(ranged ? { amountFrom: clamp((dose.amountFrom ?? 1) * each, 1, 1000) } : {}),
      ...(side === null ? {} : { side }),
      restSeconds: clamp(restSeconds ?? 0, 0, 600),
      ...(note === '' ? {} : { note }),
      ...(holdSeconds !== null && measure === 'reps' ? { holdSeconds: clamp(holdSeconds, 0, 600) } : {}),
      ...(perSide
        ? {
            perSide: {
              left: { sets: sets(perSide.left.sets), amount: bounded(perSide.left.amount) },
              right: { sets: sets(perSide.right.sets), amount: bounded(perSide.right.amount) },
            },
          }
        : {}),
      ...(tempo !== null && measure === 'reps' ? { tempo } : {}),
      ...(written.asMany ? { asMany: true } : {}),
      ...(written.bothWays ? { bothWays: true } : {}),
    }),
    ...led,
  };
}

function takenOf(
  prepared: Prepared,
  written: WrittenLine,
  inRounds: boolean,
): Pick<TakenLine, 'kind' | 'readings' | 'asText'> {
  const words = (unmarked(written.raw).text || written.raw.trim()).slice(0, MOST_OF_A_LINE);
  if (written.pause !== null) {
    const rest = restLine(clamp(written.pause || REST_UNSAID, 1, 1000));
    return { kind: 'rest', readings: [], asText: written.words ? { ...rest, words: written.words } : rest };
  }
  const said = wordsLine(words, 0);
  if (written.caution) return { kind: 'caution', readings: [], asText: cautionLine(words) };
  if (written.days) return { kind: 'days', readings: [], asText: said };
  if (written.head) return { kind: written.head.circuit ? 'circuit' : 'section', readings: [], asText: said };
  if (written.remark) return { kind: 'text', readings: [], asText: said };
  if (written.ledBy) return { kind: 'text', readings: [], asText: ownWords(written, words, false) };
  const { kind, readings, absent } = understood(prepared, written);
  const done = absent || inRounds || written.at !== null || written.superset !== null;
  return { kind, readings, asText: ownWords(written, words, done) };
}

/** Text without what no keyboard types: control characters but line ends and tabs, halves of characters. */
function typed(text: string): string {
  return text.replace(/[^\P{C}\r\n\t\p{Cf}\p{Co}]/gu, ' ');
}

/** The lines of a paper as they stand there, empty ones among them. */
const linesOfPaper = (text: string) => typed(text).split(/\r\n|\r|\n/);

/** A paper with other words for one of its rows (`TakenLine.row`); as it is where a line stands in pieces. */
export function withRow(text: string, row: number, words: string): string {
  let at = -1;
  return linesOfPaper(text)
    .flatMap((line) => {
      if (line.trim() === '') return [line];
      at += piecesOf(line).length;
      return [at === row ? words : line];
    })
    .join('\n');
}

const JOINABLE: readonly TakenKind[] = ['sure', 'likely', 'choose', 'held', 'text'];

/**
 * Takes a written list over, an answer for each of its lines that says anything: the drill it means with the dose as written,
 * several to choose from, what safety keeps out with the nearest that is allowed, or the line in its own words; a line of
 * several is answered part by part. Nothing is dropped.
 */
export function takeOver(prepared: Prepared, text: string): TakenLine[] {
  const taken: TakenLine[] = [];
  let gap = false;
  let row = -1;
  let rounds = false;
  for (const paper of linesOfPaper(text).flatMap(piecesOf)) {
    if (paper.trim() === '') {
      gap = true;
      rounds = false;
      continue;
    }
    row += 1;
    for (const plain of linesOf(prepared.reference, paper)) {
      const written = withBothWays(prepared, plain);
      if (written.head) rounds = written.head.circuit !== null && written.head.ofLast === null;
      const line: TakenLine = {
        written,
        paper,
        row,
        ...takenOf(prepared, written, rounds),
        joins: null,
        afterGap: gap,
      };
      gap = false;
      const at = taken.findLastIndex(({ kind }) => kind !== 'joined');
      const before = taken[at];
      const words = `${before?.asText.words ?? ''}, ${paper.trim()}`;
      const joins =
        before !== undefined &&
        JOINABLE.includes(before.kind) &&
        onlyDose(written) &&
        words.length <= MOST_OF_A_LINE;
      if (!joins) {
        taken.push(line);
        continue;
      }
      const whole = withAdded(before.written, written);
      const { kind, readings, absent } = understood(prepared, whole);
      taken[at] = {
        ...before,
        written: whole,
        readings,
        kind,
        asText: ownWords(whole, words, absent || rounds),
      };
      taken.push({ ...line, kind: 'joined', joins: at });
    }
  }
  return taken;
}
