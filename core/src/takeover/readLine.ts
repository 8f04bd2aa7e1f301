import type { Circuit } from '../domain/index.ts';

/** A dose as it is written: what is not said is null. */
export interface WrittenDose {
  readonly sets: number | null;
  readonly amount: number | null;
  /** The least of a range. */
  readonly amountFrom: number | null;
  /** What the amount counts, where it is said. */
  readonly unit: 'reps' | 's' | 'm' | 'breaths' | null;
}

/** What is written on one line, taken apart; nothing is judged yet. */
export interface WrittenLine {
  /** The line as it stands on paper. */
  readonly raw: string;
  /** The words that name what is done. */
  readonly words: string;
  readonly dose: WrittenDose;
  /** Another dose a side, where the line says one. */
  readonly perSide: { readonly left: WrittenDose; readonly right: WrittenDose } | null;
  readonly side: 'left' | 'right' | 'both' | null;
  readonly holdSeconds: number | null;
  readonly holdBreaths: number | null;
  readonly restSeconds: number | null;
  readonly tempo: string | null;
  readonly bothWays: boolean;
  readonly asMany: boolean;
  readonly ledBy: string | null;
  /** A head of a section, or of a group that is done in rounds. */
  readonly head: { readonly circuit: Omit<Circuit, 'id'> | null; readonly minutes: number | null } | null;
  /** Seconds of a line that only rests. */
  readonly pause: number | null;
}

const NO_DOSE: WrittenDose = { sets: null, amount: null, amountFrom: null, unit: null };

const SECONDS = '(?:s|secs?|seconds?|"|″)';
const MINUTES = "(?:min(?:ute)?s?|'|′)";
const TIME = `(\\d+(?:[.,]\\d+)?)\\s*(?:(${MINUTES})|(${SECONDS}))(?![a-z])`;
const NUMBER = '(\\d+(?:[.,]\\d+)?)';
const RANGE = `${NUMBER}(?:\\s*(?:-|–|to)\\s*${NUMBER})?`;
const UNIT = `(${SECONDS}|${MINUTES}|m(?:etres?|eters?)?|reps?|times|steps?|breaths?|contacts?)?(?![a-z])`;

const numberOf = (text: string | undefined): number | null =>
  text === undefined ? null : Number(text.replace(',', '.'));

function isMatch(text: string, pattern: string): boolean {
  return new RegExp(`^${pattern}$`, 'i').test(text);
}

/** A dose from its parts, minutes as seconds. */
function doseFrom(
  sets: string | undefined,
  from: string | undefined,
  to: string | undefined,
  unit: string | undefined,
): WrittenDose {
  const minutes = unit !== undefined && isMatch(unit, MINUTES);
  const factor = minutes ? 60 : 1;
  const first = numberOf(from);
  const last = numberOf(to);
  const scaled = (value: number | null) => (value === null ? null : value * factor);
  return {
    sets: numberOf(sets),
    amount: scaled(last ?? first),
    amountFrom: last === null || first === null || first >= last ? null : scaled(first),
    unit:
      unit === undefined
        ? null
        : minutes || isMatch(unit, SECONDS)
          ? 's'
          : /^breath/i.test(unit)
            ? 'breaths'
            : /^m/i.test(unit)
              ? 'm'
              : 'reps',
  };
}

/** Text that is read piece by piece: what one rule has read is not read again. */
class Reader {
  rest: string;
  constructor(text: string) {
    this.rest = text;
  }
  take(pattern: string): RegExpExecArray | null {
    const found = new RegExp(pattern, 'i').exec(this.rest);
    if (!found) return null;
    this.rest = `${this.rest.slice(0, found.index)} , ${this.rest.slice(found.index + found[0].length)}`;
    return found;
  }
}

const secondsOf = (found: RegExpExecArray | null, at = 1): number | null => {
  const amount = numberOf(found?.[at]);
  return amount === null ? null : Math.round(amount * (found?.[at + 1] ? 60 : 1));
};

const SETS_AND_AMOUNT = `(\\d+)\\s*(?:sets?)?\\s*(?:x|×|\\*|sets?\\s+of|of)\\s*${RANGE}\\s*${UNIT}`;

function dose(reader: Reader): WrittenDose {
  const clock = reader.take('\\b(\\d{1,2}):([0-5]\\d)\\b');
  if (clock) return { ...NO_DOSE, amount: Number(clock[1]) * 60 + Number(clock[2]), unit: 's' };
  const both = reader.take(`\\b${SETS_AND_AMOUNT}`);
  if (both) return doseFrom(both[1], both[2], both[3], both[4]);
  const sets = reader.take('\\b(\\d+)\\s*sets?\\b');
  const counted = reader.take(
    `\\b${RANGE}\\s*(${SECONDS}|${MINUTES}|m|metres?|meters?|reps?|times|steps?|breaths?|contacts?)(?![a-z])`,
  );
  if (counted) return doseFrom(sets?.[1], counted[1], counted[2], counted[3]);
  const times = reader.take(`(?:^|\\s)[x×]\\s*${RANGE}\\b`);
  if (times) return doseFrom(sets?.[1], times[1], times[2], undefined);
  const bare = reader.take(`(?:^|[\\s,])${RANGE}(?=\\s*(?:,|$))`);
  if (bare) return doseFrom(sets?.[1], bare[1], bare[2], undefined);
  return { ...NO_DOSE, sets: numberOf(sets?.[1]) };
}

/** "L 3x8-10 / R 2x8-10": each side with a dose of its own. */
function perSide(reader: Reader): WrittenLine['perSide'] {
  const own = (side: string) => `\\b${side}\\b\\.?:?\\s*${SETS_AND_AMOUNT}`;
  const both =
    new RegExp(own('(?:l|left)'), 'i').test(reader.rest) &&
    new RegExp(own('(?:r|right)'), 'i').test(reader.rest);
  if (!both) return null;
  const left = reader.take(own('(?:l|left)'));
  const right = reader.take(own('(?:r|right)'));
  return {
    left: doseFrom(left?.[1], left?.[2], left?.[3], left?.[4]),
    right: doseFrom(right?.[1], right?.[2], right?.[3], right?.[4]),
  };
}

const EACH =
  '(?:\\/\\s*(?:side|leg|arm|foot|hand)|\\b(?:on\\s+)?(?:each|ea|per|every|both)\\b\\.?(?:\\s*(?:sides?|legs?|arms?|foot|feet|hands?|ankles?|knees?|wrists?))?|\\bl\\s*(?:\\/|\\+|&|and)\\s*r\\b|\\bleft (?:and|then) right\\b|\\b(?:then )?(?:other|swap|change) sides?\\b)';

function side(reader: Reader): WrittenLine['side'] {
  if (reader.take(EACH)) return 'both';
  const one = reader.take(
    '\\b(left|right|l|r)\\b\\.?(?:\\s*(?:side|leg|arm|foot|hand))?(?:\\s*only)?|\\bonly (left|right|l|r)\\b',
  );
  const named = (one?.[1] ?? one?.[2])?.toLowerCase();
  if (!named) return null;
  return named.startsWith('l') ? 'left' : 'right';
}

/** How a group goes, and what words are left of its head: "3 rounds", "30/15 x 4", "every minute for 6 min". */
function circuitOf(reader: Reader): Omit<Circuit, 'id'> | null {
  const every =
    reader.take(`\\bevery\\s+(?:${NUMBER}\\s*)?(?:(minutes?|min)|${SECONDS})\\b`) ??
    reader.take('\\b(emom)\\b');
  if (every) {
    const amount = numberOf(every[1]) ?? 1;
    const seconds = Number.isNaN(amount) ? 60 : amount * (every[2] === undefined ? 1 : 60);
    const lasts = reader.take(`\\bfor\\s+${TIME}`) ?? reader.take(TIME);
    const rounds = reader.take('\\b(\\d+)\\s*(?:rounds?|times|x)');
    const whole = secondsOf(lasts);
    const count = rounds ? Number(rounds[1]) : whole ? Math.max(1, Math.round(whole / seconds)) : 4;
    return { rounds: Math.min(20, count), pace: { by: 'every', seconds: clamp(seconds, 20, 300) } };
  }
  const clock =
    reader.take('\\b(\\d{1,3})\\s*s?\\s*\\/\\s*(\\d{1,3})\\s*s?(?![a-z])') ??
    reader.take(
      `\\b(\\d{1,3})\\s*${SECONDS}?\\s*(?:on|work)\\s*,?\\s*(\\d{1,3})\\s*${SECONDS}?\\s*(?:off|rest)`,
    );
  const rounds =
    reader.take(
      '\\b(\\d{1,2})\\s*(?:rounds?|x\\s*(?:round|through|circuit)|times\\s+(?:round|through)|laps?)\\b',
    ) ??
    reader.take('\\b(?:rounds?|circuit)\\s*(?:x|×|of)?\\s*(\\d{1,2})\\b') ??
    (clock ? reader.take('[x×]\\s*(\\d{1,2})\\b') : null);
  if (!rounds && !clock) return null;
  const between =
    reader.take(`${TIME}\\s*(?:rest\\s*)?(?:between|after)\\s*(?:the\\s*|each\\s*)?rounds?`) ??
    reader.take(`\\brest\\s*${TIME}`);
  const step = reader.take('([+\\-−]\\s*\\d{1,2})\\s*(?:reps?\\s*)?(?:each|per|every)\\s*round');
  const pause = secondsOf(between);
  return {
    rounds: clamp(Number(rounds?.[1] ?? 1), 1, 20),
    ...(clock
      ? {
          pace: { by: 'clock', work: clamp(Number(clock[1]), 5, 300), rest: clamp(Number(clock[2]), 0, 300) },
        }
      : {}),
    ...(step?.[1] ? { step: clamp(Number(step[1].replace('−', '-').replace(/\s/g, '')), -10, 10) } : {}),
    ...(pause === null ? {} : { restSeconds: clamp(pause, 0, 600) }),
  };
}

const clamp = (value: number, low: number, high: number) => Math.min(high, Math.max(low, Math.round(value)));

const tidy = (text: string) =>
  text
    .replace(/[“”"*]/g, ' ')
    .replace(/\([\s,]*\)/g, ' ')
    .replace(/\s+/g, ' ')
    .replace(/(?:^|\s)(?:[,;.:/+&–-]+\s*)+(?=\s|$)/g, ' ')
    .replace(/\s*,(?:\s*,)+/g, ',')
    .replace(/^[\s,;:.–/-]+|[\s,;:.–/-]+$/g, '')
    .replace(/\s+/g, ' ')
    .trim();

const EMPTY: Omit<WrittenLine, 'raw'> = {
  words: '',
  dose: NO_DOSE,
  perSide: null,
  side: null,
  holdSeconds: null,
  holdBreaths: null,
  restSeconds: null,
  tempo: null,
  bothWays: false,
  asMany: false,
  ledBy: null,
  head: null,
  pause: null,
};

/** A line that only says to rest or to drink. */
function pauseOf(text: string): { words: string; seconds: number } | null {
  if (!/^(?:rest|pause|break|water|drink|breather|walk about)\b/i.test(text)) return null;
  const reader = new Reader(text);
  const seconds = secondsOf(reader.take(TIME));
  const words = tidy(reader.rest.replace(/^\s*(?:rest|pause|break)\b/i, ' '));
  if (words.split(' ').length > 4) return null;
  return { words, seconds: seconds ?? 60 };
}

/** A head: it ends in a colon or says how a group goes, and names no dose of its own. */
function headOf(text: string): (WrittenLine['head'] & { words: string }) | null {
  const colon = /:\s*$/.test(text);
  const reader = new Reader(text.replace(/:\s*$/, ''));
  const circuit = circuitOf(reader);
  const minutes = secondsOf(reader.take(TIME));
  const words = tidy(reader.rest);
  const plain = words.length <= 80 && words.split(' ').filter(Boolean).length <= (circuit ? 3 : 6);
  if (
    !plain ||
    (!colon && !(circuit && (words === '' || /^(?:circuit|stations?|block|round|group|of)\b/i.test(words))))
  )
    return null;
  return { circuit, minutes: minutes === null ? null : minutes / 60, words: words.replace(/^of$/i, '') };
}

/** Takes one written line apart: bullets, head, rest, tempo, holds, dose, side, and the words that are left. */
export function readLine(raw: string): WrittenLine {
  const text = raw
    .replace(/^\s*(?:[-–•*·▪]|\(?\d{1,2}[.)]|[a-z][.)])\s+/i, '')
    .replace(/\s+/g, ' ')
    .trim();
  const line = { ...EMPTY, raw };
  const pause = pauseOf(text);
  if (pause) return { ...line, words: pause.words, pause: pause.seconds };
  const head = headOf(text);
  if (head) return { ...line, words: head.words, head: { circuit: head.circuit, minutes: head.minutes } };
  const reader = new Reader(text);
  const led = /\b(?:with|by)\s+(?:the\s+)?(coach|trainer|physio)\b|^(coach|trainer|physio)\b\s*:?/i.exec(
    text,
  );
  const tempo = reader.take('(?:\\btempo\\s*)?\\b(\\d+(?:-\\d+){2,3})\\b');
  const rest = reader.take(`\\brest\\s*:?\\s*${TIME}`) ?? reader.take(`${TIME}\\s*(?:rest|off|break)\\b`);
  const many = reader.take(
    '\\b(?:as many as (?:stay |are )?(?:clean|good|you can)|max(?:imum)?(?: reps)?|to (?:fatigue|form break))\\b',
  );
  if (many) reader.take('\\bup to\\s*');
  const bothWays = reader.take('\\b(?:both|each|either) (?:ways?|directions?)(?: round)?\\b') !== null;
  const breaths =
    reader.take('\\bhold\\s*(?:for\\s*)?(\\d+)\\s*breaths?') ??
    reader.take('\\b(\\d+)\\s*breaths?\\s*holds?\\b');
  const hold =
    reader.take(`\\bholds?\\s*(?:for\\s*|of\\s*|each\\s*)?${TIME}`) ?? reader.take(`\\b${TIME}\\s*holds?\\b`);
  const own = perSide(reader);
  const each = side(reader);
  const written = own ? NO_DOSE : dose(reader);
  return {
    ...line,
    words: tidy(reader.rest),
    dose: written,
    perSide: own,
    side: own ? 'both' : each,
    holdSeconds: secondsOf(hold),
    holdBreaths: numberOf(breaths?.[1]),
    restSeconds: secondsOf(rest),
    tempo: tempo?.[1] ?? null,
    bothWays,
    asMany: many !== null,
    ledBy: led ? (led[1] ?? led[2] ?? 'coach').toLowerCase() : null,
  };
}
