import { hardRuleOf, heldToday, softRuleOf } from '../builder/index.ts';
import type { Held, Prepared } from '../builder/index.ts';
import type { Circuit, RoutineItem, Section } from '../domain/index.ts';
import { dosedItem, secondsPerRep, setsFor } from '../dose/index.ts';
import { isLine } from '../reference/index.ts';
import type { Drill } from '../reference/index.ts';
import { notNow, restLine, wordsLine } from '../routine/index.ts';
import { matchWords } from './match.ts';
import type { Candidate } from './match.ts';
import { readLine } from './readLine.ts';
import type { WrittenDose, WrittenLine } from './readLine.ts';

/** A way to understand a line: a drill with the dose as written. */
export interface Reading {
  readonly item: RoutineItem;
  readonly score: number;
  /** The paper counts otherwise than the drill: how it was turned round. */
  readonly turned: boolean;
  /** What safety says against it today, with the nearest that is allowed. */
  readonly held: Held | null;
}

/**
 * How a line was understood. `sure`, `likely`: one drill; `choose`: several are as near; `held`: safety keeps it out; `text`: kept
 * in its own words; `joined`: belongs to a line before; `rest`, `section`, `circuit`: what they say.
 */
export type TakenKind =
  'sure' | 'likely' | 'choose' | 'held' | 'text' | 'joined' | 'rest' | 'section' | 'circuit';

/** One line of paper and what became of it; every line has one. */
export interface TakenLine {
  readonly written: WrittenLine;
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

/** From what score on a line is taken for a drill, is sure, and how near the next one may be. */
const CONFIDENCE = { likely: 0.66, sure: 0.84, offer: 0.42, apart: 0.05 } as const;
/** Most readings offered for a line. */
const MOST_READINGS = 3;
/** Most characters of a line: words are stored up to 300, and "Not now: " may come before them. */
const MOST_OF_A_LINE = 280;
/** What suits the athlete decides between readings that are as near. */
const SUITS = { sided: 0.05, open: 0.02 } as const;

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

const within = (value: number, low: number, high: number) => Math.min(high, Math.max(low, Math.round(value)));

/** Is a drill counted, each repetition held? */
const holdsOnce = ({ dose }: Drill) => dose.measure === 'reps' && dose.holdSeconds !== null;

/** An amount in the measure of a drill; `turned` where the paper counts something else. */
function amountIn(
  drill: Drill,
  perRep: number,
  { amount, unit }: WrittenDose,
  holds: number | null,
  shared = false,
): { amount: number | null; turned: boolean } {
  const { measure } = drill.dose;
  const timed = measure === 'hold-seconds' || measure === 'seconds';
  if (amount === null) return { amount: timed && holds !== null ? holds : null, turned: false };
  // Seconds of a drill that is counted: how long it is held, where it is held, else as many as fit.
  if (unit === 's' && holdsOnce(drill)) return { amount: 1, turned: true };
  if (unit === 's' && !timed)
    return { amount: Math.max(1, Math.round(amount / perRep / (shared ? 2 : 1))), turned: true };
  if (unit === 'breaths' && timed) return { amount: Math.round(amount * 4), turned: true };
  // "10 × 10 s hold" of a drill that is held: each hold is a set's worth of it.
  if ((unit === 'reps' || unit === null) && timed && holds !== null)
    return { amount: Math.round(amount * holds), turned: true };
  if ((unit === 'reps' || (unit === null && amount < 10)) && timed)
    return { amount: Math.round(amount * Math.max(1, perRep)), turned: true };
  if (unit === 'm' && measure !== 'metres') return { amount: null, turned: true };
  return { amount, turned: false };
}

/** The item of a drill with the dose as it is written; what is not written is as the rules dose it. */
function itemAs(
  prepared: Prepared,
  drill: Drill,
  written: WrittenLine,
  note: string,
): { item: RoutineItem; turned: boolean } {
  const side = drill.unilateral ? (written.side ?? 'both') : 'both';
  const usual = setsFor(prepared.dose, drill)[0] ?? 1;
  const { item: base } = dosedItem(prepared.dose, drill, side, usual, null);
  const asHold = written.dose.unit === 's' && holdsOnce(drill) ? written.dose.amount : null;
  const held = written.holdSeconds ?? asHold;
  const dosed: RoutineItem = {
    ...base,
    ...(written.tempo === null ? {} : { tempo: written.tempo }),
    ...(held !== null && drill.dose.measure === 'reps' ? { holdSeconds: within(held, 0, 600) } : {}),
    ...(written.holdBreaths !== null && drill.dose.measure === 'reps'
      ? { holdBreaths: written.holdBreaths }
      : {}),
    ...(written.restSeconds === null ? {} : { restSeconds: within(written.restSeconds, 0, 600) }),
    ...(written.bothWays ? { bothWays: true } : {}),
    ...(written.asMany ? { asMany: true } : {}),
    ...(note === '' ? {} : { note }),
  };
  const perRep = secondsPerRep(drill, dosed);
  const doseOf = (dose: WrittenDose) => {
    // Two minutes of a drill that is done a side at a time, and no side named: both sides share them.
    const shared = drill.unilateral && written.side === null;
    const most = amountIn(drill, perRep, dose, written.holdSeconds, shared);
    const amount = within(most.amount ?? dosed.amount, 1, 1000);
    const least =
      dose.amountFrom === null
        ? null
        : amountIn(drill, perRep, { ...dose, amount: dose.amountFrom }, null).amount;
    const said = dose.amount !== null || most.amount !== null;
    return {
      turned: most.turned,
      sets: within(dose.sets ?? (said ? 1 : dosed.sets), 1, 20),
      amount,
      ...(least !== null && least < amount ? { amountFrom: within(least, 1, 1000) } : {}),
    };
  };
  const { turned, ...dose } = doseOf(written.dose);
  if (!written.perSide || !drill.unilateral) return { item: { ...dosed, ...dose }, turned };
  const left = doseOf(written.perSide.left);
  const right = doseOf(written.perSide.right);
  const bare = ({ turned: _t, ...own }: typeof left) => own;
  return {
    item: {
      ...dosed,
      sets: left.sets,
      amount: left.amount,
      perSide: { left: bare(left), right: bare(right) },
    },
    turned: left.turned || right.turned,
  };
}

function readingOf(
  prepared: Prepared,
  written: WrittenLine,
  { drill: id, score }: Candidate,
): Reading | null {
  const drill = prepared.reference.drills.get(id);
  if (!drill) return null;
  const sided = written.side !== null && drill.unilateral ? SUITS.sided : 0;
  const open = !hardRuleOf(prepared, drill) && !softRuleOf(prepared, drill) ? SUITS.open : 0;
  // What is not in the drill is not lost: it stands beside it.
  const whole = score < CONFIDENCE.sure || hasFigures(written.words);
  const aside = whole ? written.raw.trim() : clausesOf(written.words).aside;
  const { item, turned } = itemAs(prepared, drill, written, aside);
  return { item, turned, score: score + sided + open, held: heldToday(prepared, item) };
}

/** Are figures left among the words that belong to no dose and no name? */
function hasFigures(words: string): boolean {
  return /\d(?!\d*\s*%)/.test(words.replace(/\b(?:[12][ -]leg|figure[ -]4|90-90)/gi, ''));
}

/** What is done, and what is said beside it: "heel raises off step" and "slow". */
function clausesOf(words: string): { main: string; aside: string } {
  const [, main = words, aside = ''] =
    /^(.+?)(?:\s*[,;(]\s*|\s+(?=(?:only|if|unless|until|while|without pain|no pain)\b))(.+?)\)?$/i.exec(
      words,
    ) ?? [];
  return { main, aside };
}

/** Ways to read a line; of "walk or jog" each half is a way. */
function readingsOf(prepared: Prepared, written: WrittenLine): Reading[] {
  const halves = written.words.split(/\s+or\s+/i);
  const candidates = halves.flatMap((words) =>
    [...new Set([words, clausesOf(words).main])].flatMap((said) => matchWords(prepared.reference, said)),
  );
  const best = new Map<string, Candidate>();
  for (const one of candidates) if ((best.get(one.drill)?.score ?? 0) < one.score) best.set(one.drill, one);
  return [...best.values()]
    .filter(({ score }) => score >= CONFIDENCE.offer)
    .flatMap((candidate) => readingOf(prepared, written, candidate) ?? [])
    .sort((a, b) => b.score - a.score)
    .slice(0, halves.length > 1 ? MOST_READINGS + 1 : MOST_READINGS);
}

function kindOf(written: WrittenLine, readings: readonly Reading[]): TakenKind {
  const [first, second] = readings;
  if (!first || first.score < CONFIDENCE.likely) return 'text';
  const near = second !== undefined && first.score - second.score < CONFIDENCE.apart;
  if (/\s+or\s+/i.test(written.words) || near) return 'choose';
  if (first.held) return 'held';
  const plain = !first.turned && !hasFigures(written.words);
  return first.score >= CONFIDENCE.sure && plain ? 'sure' : 'likely';
}

/** Seconds that a line in its own words takes: what it says, sets and all; 0 where it says none. */
function secondsOf({ dose, holdSeconds }: WrittenLine): number {
  const each = dose.unit === 's' ? dose.amount : holdSeconds;
  return each === null ? 0 : within(each * (dose.sets ?? 1), 0, 1000);
}

function takenOf(prepared: Prepared, raw: string): TakenLine {
  const written = readLine(raw);
  const plain = { written, readings: [], joins: null, afterGap: false };
  if (written.pause !== null) {
    const rest = restLine(within(written.pause, 1, 1000));
    return { ...plain, kind: 'rest', asText: written.words ? { ...rest, words: written.words } : rest };
  }
  const words = raw.trim().replace(/^\s*(?:[-–•*·▪]|\(?\d{1,2}[.)])\s+/, '');
  const asText = {
    ...wordsLine(words, secondsOf(written)),
    ...(written.ledBy ? { ledBy: written.ledBy } : {}),
  };
  if (written.head) return { ...plain, kind: written.head.circuit ? 'circuit' : 'section', asText };
  if (written.ledBy) return { ...plain, kind: 'text', asText };
  const readings = readingsOf(prepared, written);
  return { ...plain, readings, kind: kindOf(written, readings), asText };
}

/** Says a line nothing but how the one before it is done? */
function onlyDose({ words, head, pause, ...said }: WrittenLine): boolean {
  const { dose, holdSeconds, restSeconds, tempo, side, holdBreaths, perSide } = said;
  return (
    words === '' &&
    head === null &&
    pause === null &&
    (dose.amount ?? dose.sets ?? holdSeconds ?? holdBreaths ?? restSeconds ?? tempo ?? side ?? perSide) !==
      null
  );
}

/** A line with what the next one adds to it; what it said itself stands. */
function withAdded(line: WrittenLine, added: WrittenLine): WrittenLine {
  return {
    ...line,
    raw: line.raw,
    dose: line.dose.amount === null ? { ...added.dose, sets: added.dose.sets ?? line.dose.sets } : line.dose,
    perSide: line.perSide ?? added.perSide,
    side: line.side ?? added.side,
    holdSeconds: line.holdSeconds ?? added.holdSeconds,
    holdBreaths: line.holdBreaths ?? added.holdBreaths,
    restSeconds: line.restSeconds ?? added.restSeconds,
    tempo: line.tempo ?? added.tempo,
    bothWays: line.bothWays || added.bothWays,
    asMany: line.asMany || added.asMany,
  };
}

/** Text without what no keyboard types: control characters but line ends and tabs, halves of characters. */
function typed(text: string): string {
  return text.replace(/[^\P{C}\r\n\t\p{Cf}\p{Co}]/gu, ' ');
}

/**
 * Takes a written list over, one answer for each of its lines that says anything: the drill it means with the dose as written,
 * several to choose from, what safety keeps out with the nearest that is allowed, or the line in its own words. Nothing is
 * dropped.
 */
export function takeOver(prepared: Prepared, text: string): TakenLine[] {
  const taken: TakenLine[] = [];
  let gap = false;
  for (const raw of typed(text)
    .split(/\r\n|\r|\n/)
    .flatMap(piecesOf)) {
    if (raw.trim() === '') {
      gap = true;
      continue;
    }
    const line = { ...takenOf(prepared, raw), afterGap: gap };
    gap = false;
    const at = taken.findLastIndex(({ kind }) => kind !== 'joined');
    const before = taken[at];
    const takes = before && ['sure', 'likely', 'choose', 'held', 'text'].includes(before.kind);
    const words = `${before?.asText.words ?? ''}, ${line.written.raw.trim()}`;
    if (!before || !takes || !onlyDose(line.written) || words.length > MOST_OF_A_LINE) {
      taken.push(line);
      continue;
    }
    const whole = withAdded(before.written, line.written);
    const readings = readingsOf(prepared, whole);
    taken[at] = {
      ...before,
      written: whole,
      readings,
      kind: kindOf(whole, readings),
      asText: { ...before.asText, amount: secondsOf(whole), words },
    };
    taken.push({ ...line, kind: 'joined', joins: at });
  }
  return taken;
}

/** What a practitioner chose for a line: one of its readings by place, what is allowed instead, or its own words. */
export type Choice = number | 'instead' | 'text';

/** The choice that stands until another is made: the first reading, but words where none is near or safety says no. */
export function firstChoice({ kind, readings }: TakenLine): Choice {
  if (kind !== 'sure' && kind !== 'likely' && kind !== 'choose') return 'text';
  const allowed = readings.findIndex(({ held }) => held === null);
  return allowed < 0 ? 'text' : allowed;
}

/** The item of a line as it was chosen; null for heads and joined lines. */
export function chosenItem(line: TakenLine, choice: Choice): RoutineItem | null {
  if (line.kind === 'section' || line.kind === 'circuit' || line.kind === 'joined') return null;
  if (line.kind === 'rest') return line.asText;
  const kept = notNow(line.asText.words ?? '');
  if (choice === 'instead') return line.readings[0]?.held?.instead ?? kept;
  if (choice === 'text') return line.kind === 'held' ? kept : line.asText;
  const reading = line.readings[choice];
  if (!reading) return line.asText;
  return reading.held ? kept : reading.item;
}

/** A list as a routine: lines in their order, under the sections and in the rounds that its heads name, with the place of each line. */
export function routineOfLines(
  lines: readonly TakenLine[],
  choices: readonly (Choice | undefined)[],
): { items: RoutineItem[]; sections: Section[]; places: (number | null)[] } {
  const items: RoutineItem[] = [];
  const places: (number | null)[] = lines.map(() => null);
  const sections: Section[] = [];
  let section: string | null = null;
  let circuit: Circuit | null = null;
  lines.forEach((line, i) => {
    const { head, words } = line.written;
    if (line.afterGap) circuit = null;
    if (head) {
      const named = words !== '' || head.circuit === null;
      if (named) {
        section = `section-${sections.length + 1}`;
        sections.push({ id: section, name: words || 'Section', minutes: head.minutes });
      }
      circuit = head.circuit ? { id: `c${i + 1}`, ...head.circuit } : null;
      return;
    }
    const item = chosenItem(line, choices[i] ?? firstChoice(line));
    if (!item) return;
    places[i] = items.length;
    const drill = !isLine(item.drill);
    // A rest ends the rounds; words among the drills of a circuit come after it.
    if (!drill) circuit = null;
    items.push({ ...item, phase: section, ...(drill && circuit ? { circuit } : {}) });
  });
  return { items, sections, places };
}
