import type { Circuit, RoutineItem, Section } from '../domain/index.ts';
import { routineTime } from '../dose/index.ts';
import { isOwnWords, PAUSE } from '../reference/index.ts';
import type { Reference } from '../reference/index.ts';
import { notNow, restLine } from '../routine/index.ts';
import type { Head } from './line/heads.ts';
import { unmarked } from './line/readLine.ts';
import { clamp } from './line/reader.ts';
import { MOST_OF_A_LINE } from './takeOver.ts';
import type { TakenLine } from './takeOver.ts';

/** What a practitioner chose for a line: one of its readings by place, what is allowed instead, or its own words. */
export type Choice = number | 'instead' | 'text';

/** The choice that stands until another is made: the first reading that is allowed; own words where none is near, where it has to be chosen, or where safety says no. */
export function firstChoice({ kind, readings }: TakenLine): Choice {
  if (kind !== 'sure' && kind !== 'likely') return 'text';
  const allowed = readings.findIndex(({ held }) => held === null);
  return allowed < 0 ? 'text' : allowed;
}

/** The item of a line as it was chosen; null for heads, days and joined lines. */
export function chosenItem(line: TakenLine, choice: Choice): RoutineItem | null {
  const { kind, asText } = line;
  if (kind === 'section' || kind === 'circuit' || kind === 'joined') return null;
  if (kind === 'rest' || kind === 'caution' || kind === 'days') return asText;
  const kept = notNow(unmarked(line.written.raw).text.slice(0, MOST_OF_A_LINE));
  if (choice === 'instead') return line.readings[0]?.held?.instead ?? kept;
  if (choice === 'text') return kind === 'held' ? kept : asText;
  const reading = line.readings[choice];
  if (!reading) return asText;
  return reading.held ? kept : reading.item;
}

/** A list as a routine. */
export interface TakenRoutine {
  readonly items: RoutineItem[];
  readonly sections: Section[];
  /** The place of each line among the items; null where it has none of its own. */
  readonly places: (number | null)[];
}

/** The name of a head: its own words, and what its rounds say that no circuit holds. */
function nameOf(words: string, { roundsTo, asManyRounds, circuit, minutes }: Head): string {
  const rounds = asManyRounds
    ? `as many rounds as stay clean${minutes === null ? '' : ` in ${minutes} min`}`
    : roundsTo === null
      ? ''
      : `${circuit?.rounds}–${roundsTo} rounds`;
  return [words, rounds].filter(Boolean).join(', ').slice(0, 80);
}

const canTurn = ({ drill, amount }: RoutineItem) => drill !== PAUSE && !(isOwnWords(drill) && amount === 0);

/** Puts a circuit round neighbouring items from one place to another, where each can be done in turn. */
function turned(items: RoutineItem[], from: number, to: number, circuit: Circuit): void {
  for (let i = from; i <= to; i += 1) {
    const item = items[i];
    if (item) items[i] = { ...item, circuit };
  }
}

/** The rest that a line between sets or rounds gives to what stands before it; null where the line rests by itself. */
function restsBetween({ kind, written }: TakenLine): number | null {
  const between =
    kind === 'rest' && /\b(?:between|b\/w|btw|zwischen|after each|each set|per set)\b/i.test(written.words);
  return between && written.pause ? clamp(written.pause, 0, 600) : null;
}

/**
 * A list as a routine: lines in their order, under the sections and in the rounds that its heads name; A1 and A2 in turn; a start
 * by the clock reached by a rest. With the place of each line.
 */
export function routineOfLines(
  reference: Reference,
  lines: readonly TakenLine[],
  choices: readonly (Choice | undefined)[],
): TakenRoutine {
  const items: RoutineItem[] = [];
  const places: (number | null)[] = lines.map(() => null);
  const sections: Section[] = [];
  let section: string | null = null;
  let open: { circuit: Circuit; from: number; head: Head | null; superset: string | null } | null = null;
  const close = () => {
    if (!open) return;
    const { circuit, from, head, superset } = open;
    const to = items.length - 1;
    const many = to - from + 1;
    open = null;
    if (many < 1 || (superset !== null && many < 2)) return;
    if (superset !== null) {
      const sets = items.slice(from).map((item) => (item.perSide ? 0 : item.sets));
      const [rounds = 1] = sets;
      // Only what is done as often as its neighbour goes in turn with it.
      if (sets.some((count) => count !== rounds) || rounds < 1) return;
      for (let i = from; i <= to; i += 1) items[i] = { ...(items[i] as RoutineItem), sets: 1 };
      turned(items, from, to, { ...circuit, rounds });
      return;
    }
    turned(items, from, to, { ...circuit, rounds: roundsWithin(circuit, head, items.slice(from)) });
  };
  /** Rounds that fit the minutes of a head: by its starts, or where it is as many as there are by what one takes. */
  const roundsWithin = (circuit: Circuit, head: Head | null, turn: readonly RoutineItem[]): number => {
    const seconds = (head?.minutes ?? 0) * 60;
    if (seconds === 0) return circuit.rounds;
    if (circuit.pace?.by === 'every') return clamp(seconds / circuit.pace.seconds / turn.length, 1, 20);
    if (!head?.asManyRounds) return circuit.rounds;
    return clamp(Math.floor(seconds / Math.max(1, routineTime(reference, turn).total)), 1, 20);
  };
  const clockTo = (at: number) => {
    const gap = at - routineTime(reference, items).total;
    if (gap >= 1 && items.length > 0)
      items.push({
        ...restLine(clamp(gap, 1, 1000)),
        phase: section,
        words: `until ${Math.floor(at / 60)}:${String(at % 60).padStart(2, '0')}`,
      });
  };
  lines.forEach((line, i) => {
    const { head, words, superset, at } = line.written;
    const between = restsBetween(line);
    if (between !== null && items.length > 0) {
      const last = items.length - 1;
      if (open) open.circuit = { ...open.circuit, restSeconds: between };
      else items[last] = { ...(items[last] as RoutineItem), restSeconds: between };
      return;
    }
    if (line.afterGap || head || (open && open.superset !== superset)) close();
    if (head) {
      if (head.ofLast !== null) {
        const from = head.ofLast === 'all' ? 0 : Math.max(0, items.length - head.ofLast);
        const free = items.slice(from).every((item) => !item.circuit && canTurn(item));
        if (free && head.circuit) turned(items, from, items.length - 1, { id: `c${i + 1}`, ...head.circuit });
        return;
      }
      const name = nameOf(words, head);
      if (name !== '' || head.circuit === null) {
        section = `section-${sections.length + 1}`;
        sections.push({ id: section, name: name || 'Section', minutes: head.minutes });
      }
      if (head.circuit)
        open = { circuit: { id: `c${i + 1}`, ...head.circuit }, from: items.length, head, superset: null };
      return;
    }
    const item = chosenItem(line, choices[i] ?? firstChoice(line));
    if (!item) return;
    if (at !== null) clockTo(at);
    // A rest ends the rounds, and so do words that are only read.
    if (open && !canTurn(item)) close();
    if (!open && superset !== null && canTurn(item))
      open = { circuit: { id: `c${i + 1}`, rounds: 1 }, from: items.length, head: null, superset };
    places[i] = items.length;
    items.push({ ...item, phase: section });
  });
  close();
  return { items, sections, places };
}
