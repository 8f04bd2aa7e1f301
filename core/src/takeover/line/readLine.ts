import { readCaution, withoutNegated } from './cautions.ts';
import type { Caution } from './cautions.ts';
import { readDays, withoutFrequency } from './days.ts';
import type { WrittenDays } from './days.ts';
import { NO_DOSE, takeDose } from './dose.ts';
import type { WrittenDose } from './dose.ts';
import { readHead } from './heads.ts';
import type { Head } from './heads.ts';
import { Reader, tidy } from './reader.ts';
import { takeEachSide, takeSide, takeSideDoses } from './sides.ts';
import type { WrittenSide } from './sides.ts';
import { inUnits } from './units.ts';

/** A load as it is written: kilograms where they are said, and the words ("12 kg", "70 %", "effort 7 of 10"). */
interface WrittenLoad {
  readonly kg: number | null;
  readonly text: string;
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
  readonly side: WrittenSide | null;
  readonly holdSeconds: number | null;
  readonly holdBreaths: number | null;
  readonly restSeconds: number | null;
  readonly tempo: string | null;
  readonly load: WrittenLoad | null;
  /** Efforts of the sets in percent, as they follow one another. */
  readonly efforts: readonly number[];
  /** Metres that something is thrown or run beside its count: "8 @ 10 m". */
  readonly distance: number | null;
  readonly bothWays: boolean;
  readonly asMany: boolean;
  readonly ledBy: string | null;
  /** "A" of A1, A2: lines that are done in turn. */
  readonly superset: string | null;
  /** Seconds from the start of the list at which it begins. */
  readonly at: number | null;
  /** What it says is not to be: "no weight". */
  readonly negated: string;
  /** How often, where a drill's own line says so. */
  readonly often: string;
  readonly head: Head | null;
  /** What stands behind a head on its line: the first of what it heads. */
  readonly tail: string;
  /** Seconds of a line that only rests; 0 where it names no time. */
  readonly pause: number | null;
  readonly caution: Caution | null;
  readonly days: WrittenDays | null;
  /** A question or an order of regions: kept, never a drill. */
  readonly remark: boolean;
}

const EMPTY: Omit<WrittenLine, 'raw'> = {
  words: '',
  dose: NO_DOSE,
  perSide: null,
  side: null,
  holdSeconds: null,
  holdBreaths: null,
  restSeconds: null,
  tempo: null,
  load: null,
  efforts: [],
  distance: null,
  bothWays: false,
  asMany: false,
  ledBy: null,
  superset: null,
  at: null,
  negated: '',
  often: '',
  head: null,
  tail: '',
  pause: null,
  caution: null,
  days: null,
  remark: false,
};

const BULLET = /^\s*(?:(?:[-–—•*·▪◦>]|\[[ xX]?\]|[☐☑☒□▢✓✔])\s*)+(?=[^\s-])/u;
const NUMBERED = /^\s*(?:\(?\d{1,2}[.)](?!\d)|#\d{1,2}[.:)]?|[a-z][.)](?=\s))\s*/i;
const SUPERSET = /^\s*([A-H])\s?(\d)\s*[.):-]?\s+(?=\S)/;
const MARK = /^\s*(\d{1,2}):([0-5]\d)(?:\s*[-–]\s*\d{1,2}:[0-5]\d)?\s*[-–:.)]?\s+(?=\p{L})/u;

/** A line without what only marks its place: bullet, box, number, "A1", a time on the clock. */
export function unmarked(raw: string): { text: string; superset: string | null; at: number | null } {
  const bare = raw.replace(BULLET, '');
  const clock = MARK.exec(bare);
  if (clock) {
    const at = Number(clock[1]) * 60 + Number(clock[2]);
    return { text: bare.slice(clock[0].length).trim(), superset: null, at };
  }
  const paired = SUPERSET.exec(bare);
  if (paired) return { text: bare.slice(paired[0].length).trim(), superset: paired[1] ?? null, at: null };
  return { text: bare.replace(NUMBERED, '').trim(), superset: null, at: null };
}

const REST_WORD = '(?:rest|pause|break|recover(?:y)?|breather|erholung|ruhe|satzpause)';
const REST_LINE = new RegExp(
  `^(?:(?:then|dann|short|kurze|active|aktive)\\s+)?(?:${REST_WORD}|water|drink|trinken|trinkpause|walk about|r)(?![\\p{L}])`,
  'iu',
);

/** A line that only says to rest or to drink; seconds 0 where it names no time. */
function pauseOf(text: string): { words: string; seconds: number } | null {
  const timed = new RegExp(`^(\\d+)(?:-(\\d+))?s\\s*${REST_WORD}\\b`, 'i').exec(text);
  if (!timed && (!REST_LINE.test(text) || /^r\s+(?!\d|[:=])/i.test(text))) return null;
  const reader = new Reader(text);
  const found =
    reader.take(/(\d+)(?:-(\d+))?s\b/) ?? reader.take(/(?<=rest|pause|r|:|=)\s*(\d{1,3})(?!\d|x|r\b|m\b)/i);
  const words = tidy(
    reader.rest.replace(new RegExp(`^[\\s,]*(?:${REST_WORD}|r)(?![\\p{L}])\\s*[:=]?`, 'iu'), ' '),
  );
  if (words.split(' ').length > 5) return null;
  const given = Number(found?.[1] ?? 0);
  const seconds = found && !/s/.test(found[0]) && given < 10 ? given * 60 : given;
  return {
    words: words.replace(/\b(?:b\/w|btw)(?!\p{L})/iu, 'between').replace(/^between$/i, 'between sets'),
    seconds,
  };
}

/** Words that name a region, as an order of regions has them. */
const REGION =
  /^(?:the\s+)?(?:ankles?|feet|foot|toes?|calf|calves|knees?|hips?|groin|pelvis|trunk|core|spine|back|low(?:er)? back|upper back|t-spine|neck|shoulders?|elbows?|wrists?|hands?|fingers?|sprunggelenk|fuß|füße|knie|hüfte|becken|rumpf|rücken|bws|lws|hws|schultern?|ellenbogen|handgelenke?|finger)$/i;

function isRemark(text: string): boolean {
  if (/\?(?:\s|$)/.test(text)) return true;
  const stations = text.split(/\s*(?:→|>)\s*/).filter((part) => part.trim() !== '');
  return stations.length > 1 && stations.every((part) => REGION.test(part.trim()));
}

const TEMPO_SAID =
  /(?:\btempo\s*[:=]?\s*|(?<=\s)@\s*|\bt\s*[:=]\s*)([0-9x])\s*[-.:]?\s*([0-9x])\s*[-.:]?\s*([0-9x])(?:\s*[-.:]?\s*([0-9x]))?(?![\d%/a-z])/i;
const TEMPO_BARE = /(?<![\d.:/x-])(\d)-([\dx])-(\d)(?:-([\dx]))?(?![\d%-]|\s*%)/i;

/** "tempo 3-1-1", "@3010", and "3-1-1" beside a dose; three small numbers alone are sets. */
function takeTempo(reader: Reader): string | null {
  const said = reader.take(TEMPO_SAID);
  const digits = said ?? TEMPO_BARE.exec(reader.rest);
  if (!digits) return null;
  const parts = digits.slice(1).filter((part) => part !== undefined);
  if (!said) {
    const others = reader.rest.replace(digits[0], ' ');
    const dosed = /\d(?:-\d+)?x\d|\d(?:r|set)\b|(?<![\d@])\b\d{1,2}(?=\s|$|,)/i.test(
      others.replace(/\d+(?:\.\d+)?\s*(?:kg|%)/gi, ' '),
    );
    if (!dosed && !parts.includes('0')) return null;
    reader.take(TEMPO_BARE);
  }
  return parts.map((part) => (part.toLowerCase() === 'x' ? '1' : part)).join('-');
}

const EFFORTS =
  /(?:@|at|bei|mit|ca\.?|~)?\s*(?<![\d.x])(\d{2,3}(?:\s*%?\s*[-/,]\s*\d{2,3})*)\s*%\s*(?:of\s+)?(?:mvc|mvic|effort|1\s?rm|rm|max(?:imum)?|intensity|speed|pace|top speed|der maximalkraft|mk|kraft|bw|bodyweight|body weight|kg|tempo|intensität)?(?![a-z])/i;

/** "70-80-90 %", "@70% MVC": efforts as they follow one another. */
function takeEfforts(reader: Reader): number[] {
  const found = reader.take(EFFORTS);
  return found ? (found[1] ?? '').split(/\D+/).filter(Boolean).map(Number) : [];
}

const KG =
  /(?:(?:@|with|w\/|mit|at|bei|\+|je|a)\s*)?(?:(\d)x)?(?<![\d.])(\d+(?:\.\d+)?)(?:-(\d+(?:\.\d+)?))?\s*(kg|kilos?|lbs?|pounds?)(?![a-z])(?:\s*(?:je|each|per) (?:hand|arm|side))?/i;
const AT = /@\s*(\d+(?:\.\d+)?)(?![\d.]*\s*[%°smrx:/a-z\d])/i;
/** "@ 7/10": an effort; "10/10" alone is as many on each side. */
const OF_TEN_SAID = /@\s*(\d{1,2}(?:-\d{1,2})?)\s*\/\s*10(?![\d/])/;
const RPE =
  /(?:@\s*)?\b(?:(rpe|rir|borg|effort|anstrengung)\s*[:=@]?\s*(\d{1,2}(?:-\d{1,2})?)(?:\s*\/\s*10)?)(?![\d%])/i;
/** Turning out or in at the side or at shoulder height: "ER @90" is no load. */
const TURNS = /\b(?:er|ir|external|internal|rotation|rot|ar)\b/i;

function takeLoad(reader: Reader): { load: WrittenLoad | null; angle: string } {
  let angle = '';
  const turned = TURNS.test(reader.rest)
    ? reader.take(/@?\s*\b(0|45|90)(?:°|(?![\d/x-]))(?!\s*-\s*90)(?:\s*(?:abd\w*))?/i)
    : null;
  if (turned) angle = turned[1] === '90' ? ' deg90 ' : turned[1] === '0' ? ' deg0 ' : ' ';
  // "3x8x12kg": the last figure is the load.
  const joined = reader.rest.replace(/(\dx\d+(?:-\d+)?)x(?=\d+(?:\.\d+)?\s*kg)/i, '$1 ');
  reader.rest = joined;
  const found = reader.take(KG);
  if (found) {
    const each = Number(found[2]);
    const pounds = /^(?:lb|pound)/i.test(found[4] ?? '');
    const kg = pounds ? Math.round(each * 0.4536 * 10) / 10 : each;
    const times = found[1] === undefined ? '' : `${found[1]} × `;
    const to = found[3] === undefined || pounds ? '' : `–${found[3]}`;
    return { load: { kg, text: `${times}${kg}${to} kg` }, angle };
  }
  const rated = reader.take(RPE);
  if (rated)
    return {
      load: { kg: null, text: `${/rir/i.test(rated[1] ?? '') ? 'reps in reserve' : 'effort'} ${rated[2]}` },
      angle,
    };
  const ofTen = reader.take(OF_TEN_SAID);
  if (ofTen) return { load: { kg: null, text: `effort ${ofTen[1]}` }, angle };
  const at = reader.take(AT);
  return { load: at ? { kg: Number(at[1]), text: `${at[1]} kg` } : null, angle };
}

const CAP =
  /\(?\s*\b(?:stop|cap(?:ped)?|bis|until|up to|höchstens|hoechstens|limit|max\.?|maximal)\s*(?:@|at|bei|to|of|zu)?\s*(\d+)(s|r|b)?(?![\dx])\s*\)?/i;
const MANY =
  /\b(?:as many (?:reps )?as (?:stay |are )?(?:clean|good|you can|possible)|amrap|max(?:imum|imal|\.)?(?: reps| effort hold| hold)?|to (?:fatigue|form break|failure)|so viele? wie möglich|bis zur ermüdung)(?![a-z])/i;

function takeAsMany(reader: Reader): { asMany: boolean; cap: WrittenDose | null; sets: number | null } {
  const capped = CAP.exec(reader.rest);
  const sets =
    reader.take(/(?<![\d.:/])(\d{1,2})x(?=\s*(?:max|amrap))/i) ??
    reader.take(/(?<![\d.:/])(\d{1,2})set\s*(?=(?:max|amrap))/i);
  if (capped) reader.take(CAP);
  const many = reader.take(MANY);
  const asMany = many !== null || capped !== null;
  const unit = capped?.[2]?.toLowerCase();
  return {
    asMany,
    sets: sets ? Number(sets[1]) : null,
    cap: capped
      ? {
          ...NO_DOSE,
          amount: Number(capped[1]),
          unit: unit === 's' ? 's' : unit === 'b' ? 'breaths' : unit === 'r' ? 'reps' : null,
        }
      : null,
  };
}

function takeRest(reader: Reader): number | null {
  const after =
    '(?:\\s*(?:between|b\\/w|btw|zwischen|after)?\\s*(?:the\\s+)?(?:sets?|each set|reps?|rounds?|sides?|sätzen|den sätzen|seiten))?';
  const found =
    reader.take(
      new RegExp(
        `(?:\\bwith\\s+|\\bw\\/\\s*|\\bmit\\s+)?\\b${REST_WORD}\\s*(?:of|von|:|=)?\\s*(\\d+)(?:-\\d+)?(s)?(?![\\dx])${after}`,
        'i',
      ),
    ) ??
    reader.take(/(?<![\p{L}])(?:r|p|rec)\s*[:=]\s*(\d+)(?:-\d+)?(s)?(?![\dx])/iu) ??
    reader.take(/(?<![\p{L}])(?:r|p)\s?(\d+)(s)(?![\dx])/iu) ??
    reader.take(
      new RegExp(
        `(?:\\bwith\\s+|\\bw\\/\\s*|\\bmit\\s+)?(?<![x\\d.-])(\\d+)(?:-\\d+)?(s)\\s*(?:${REST_WORD}|off|b\\/w|btw|between|zwischen|dazwischen)(?![a-z])${after}`,
        'i',
      ),
    );
  if (!found) return null;
  const given = Number(found[1]);
  return found[2] === undefined && given < 10 ? given * 60 : given;
}

interface HoldRead {
  readonly seconds: number | null;
  /** The most of a range. */
  readonly to: number | null;
  readonly breaths: number | null;
}

function takeHold(reader: Reader): HoldRead {
  const breaths =
    reader.take(/\b(?:hold|halten)\s*(?:for|of|je|each|,)?\s*(\d+)b\b/i) ??
    reader.take(/(?<![x\d.-])(\d+)b\s*(?:holds?|halten)\b/i);
  const found =
    reader.take(
      /\b(?:holds?|halten|halte|iso)\s*(?:for|of|je|each|at|end|@|:)?\s*(\d+)(?:-(\d+))?s(?![a-z])/i,
    ) ??
    reader.take(
      /(?:\bwith\s+|\bw\/\s*|\bmit\s+)?(?<![x\d.-])(\d+)(?:-(\d+))?s\s*(?:holds?|halten|iso(?:metric)?|squeeze|pause(?=\s*(?:at|on|top|bottom|oben|unten|in)\b))(?![a-z])(?:\s*(?:at|on)?\s*(?:the\s*)?(?:top|bottom|end|oben|unten))?/i,
    );
  const number = (text: string | undefined) => (text === undefined ? null : Number(text));
  return { seconds: number(found?.[1]), to: number(found?.[2]), breaths: number(breaths?.[1]) };
}

const BOTH_WAYS =
  /\b(?:(?:both|each|either|beide|jede|je|pro|in beide|in jede)\s+(?:ways?|directions?|richtung(?:en)?)(?: round)?|cw\s*[/&+]\s*ccw|clockwise and anti-?clockwise|vor und zurück kreisen)(?![a-z])/i;
/** "10 forward, 10 back": as many each way round. */
const COUNTED_BOTH_WAYS =
  /(?<![\d.x])(\d+)r?\s*(?:vor\w*|forwards?|fwd|cw|clockwise)\s*[,/+&]?\s*(?:and|und)?\s*\1r?\s*(?:zur(?:ü|ue)ck|r(?:ü|ue)ck\w*|back\w*|bwd|ccw)(?!\p{L})/iu;
const BREATHING = /\b(?:breath\w*|atm\w*|bauchatmung)\b/i;

/** What is done by the length where nothing else is said. */
const LANES = /\b(?:ladder|koordinationsleiter|leiter)\b/i;

/** Takes the line of a drill apart. */
function readDrill(line: WrittenLine, text: string): WrittenLine {
  const led = /\b(?:with|by)\s+(?:the\s+)?(coach|trainer|physio)\b|^(coach|trainer|physio)\b\s*:?/i.exec(
    text,
  );
  const { text: once, often } = withoutFrequency(text);
  const { words: said, negated } = withoutNegated(once);
  // A dose behind what is negated is the drill's: "bridge, no band 2x10".
  const dosed = /[\s,]+(?:\d+(?:-\d+)?x\d.*|\d+(?:-\d+)?(?:s|m|r|b)?(?:\s*(?:ea|each)\b.*)?)$/i.exec(negated);
  const reader = new Reader(` ${said} ${dosed?.[0] ?? ''} `);
  reader.rest = reader.rest.replace(COUNTED_BOTH_WAYS, ' $1 both ways ');
  const bothWays = reader.take(BOTH_WAYS) !== null;
  const hold = takeHold(reader);
  const rest = takeRest(reader);
  const many = takeAsMany(reader);
  const tempo = takeTempo(reader);
  const efforts = takeEfforts(reader);
  const { load, angle } = takeLoad(reader);
  const thrown = reader.take(/(?<!x)(?:@|at|from|bei|auf|über)\s*(\d+(?:\.\d+)?)m(?![a-z])/i);
  const own = takeSideDoses(reader);
  const side = own ? 'both' : takeSide(reader);
  const each = own ? null : takeEachSide(reader);
  const pattern = BREATHING.test(said)
    ? reader.take(/(?<![\dx])\d{1,2}(?:\s*[-/]\s*\d{1,2}){1,3}(?!\s*%)/)
    : null;
  const read = own ? null : takeDose(reader);
  const plain = read?.dose ?? NO_DOSE;
  // "hollow hold 20-30s": the range of the hold is the dose, where there is no other.
  const ranged = hold.to !== null && hold.seconds !== null && plain.amount === null && hold.to > hold.seconds;
  const dose: WrittenDose = ranged
    ? { ...plain, amount: hold.to, amountFrom: hold.seconds, unit: 's' }
    : plain;
  const counted = each === null ? dose : { ...NO_DOSE, sets: dose.sets, amount: each, unit: dose.unit };
  const capped =
    many.cap && counted.amount === null
      ? { ...many.cap, sets: many.sets ?? counted.sets }
      : { ...counted, sets: counted.sets ?? many.sets };
  const lengths = LANES.test(said) && capped.unit === null && capped.sets === null && capped.amount !== null;
  const breathed = capped.unit === null || capped.unit === 'reps';
  return {
    ...line,
    words: `${tidy(reader.rest)}${angle}`.replaceAll('_', ' ').trim(),
    dose:
      breathed && BREATHING.test(said) && capped.amount !== null
        ? { ...capped, unit: 'breaths' }
        : lengths
          ? { ...capped, unit: 'lengths' }
          : capped,
    perSide: own,
    side: side ?? (each === null ? null : 'both'),
    holdSeconds: pattern || ranged ? null : (read?.holdSeconds ?? hold.seconds),
    holdBreaths: hold.breaths,
    restSeconds: rest,
    tempo,
    load,
    efforts,
    distance: thrown ? Number(thrown[1]) : null,
    bothWays,
    asMany: many.asMany,
    ledBy: led ? (led[1] ?? led[2] ?? 'coach').toLowerCase() : null,
    negated: dosed ? negated.slice(0, negated.length - dosed[0].length).trim() : negated,
    often,
  };
}

/**
 * Takes one written line apart: its mark, and whether it heads, rests, warns, says when or asks; else a drill with dose, side,
 * hold, rest, tempo, load and the words that are left.
 */
export function readLine(raw: string): WrittenLine {
  const { text: bare, superset, at } = unmarked(raw);
  const line: WrittenLine = { ...EMPTY, raw, superset, at };
  const text = inUnits(bare);
  const days = readDays(bare);
  if (days) return { ...line, words: bare, days };
  const caution = readCaution(bare);
  if (caution) return { ...line, words: bare, caution };
  if (isRemark(text)) return { ...line, words: bare, remark: true };
  const pause = pauseOf(text);
  if (pause) return { ...line, words: pause.words, pause: pause.seconds };
  const head = at === null && superset === null ? readHead(text) : null;
  if (head) {
    const { words, tail, ...what } = head;
    return { ...line, words, head: what, tail };
  }
  return readDrill(line, text);
}
