import type { Circuit } from '../../domain/index.ts';
import { withoutFrequency } from './days.ts';
import { clamp, Reader, tidy } from './reader.ts';

/** A head of a section, or of a group that is done in rounds. */
export interface Head {
  readonly circuit: Omit<Circuit, 'id'> | null;
  /** Minutes that it says it takes. */
  readonly minutes: number | null;
  /** The most of a range of rounds. */
  readonly roundsTo: number | null;
  /** As many rounds as stay clean within its minutes. */
  readonly asManyRounds: boolean;
  /** How many of the lines before it go round, "then all three"; null where it heads what follows. */
  readonly ofLast: number | 'all' | null;
}

const LONGEST_HEAD = 80;
const ROUND = '(?:rounds?|rds?|runden?|durchg(?:ä|ae)nge?|circuits?|times through|x through|laps? of)';

/** Figures written out, as far as rounds are counted in them. */
const COUNTED: Readonly<Record<string, number>> = {
  two: 2, three: 3, four: 4, five: 5, six: 6, zwei: 2, drei: 3, vier: 4, fünf: 5,
}; // prettier-ignore

interface Going {
  readonly circuit: Omit<Circuit, 'id'>;
  readonly minutes: number | null;
  readonly roundsTo: number | null;
  readonly asManyRounds: boolean;
}

const going = (circuit: Omit<Circuit, 'id'>, more: Partial<Omit<Going, 'circuit'>> = {}): Going => ({
  circuit,
  minutes: null,
  roundsTo: null,
  asManyRounds: false,
  ...more,
});

const rounds = (value: number | string | undefined, otherwise = 1) =>
  clamp(Number(value ?? otherwise) || otherwise, 1, 20);

/** Starts at fixed times: "EMOM 10", "E2MOM x 5", "every 90s x 6", "every minute for 360s". */
function everySo(reader: Reader): Going | null {
  const named = reader.take(/\be(\d{1,2})?mom\b/i);
  const said =
    named ??
    reader.take(/(?:\bon\s+)?\b(?:every|alle|jede)\s+(?:(\d+)s|(?:the\s+)?min(?:ute)?n?\b)/i) ??
    reader.take(/\bon the (minute)\b/i);
  if (!said) return null;
  const given = Number(said[1]);
  const every = named ? (given || 1) * 60 : given || 60;
  const times = reader.take(/[x×]\s*(\d{1,2})(?![\ds])|\b(\d{1,2})\s*(?:rounds?|rds?|r|x)(?![a-z])/i);
  const whole =
    reader.take(/\b(?:for|f(?:ü|ue)r|über)?\s*(\d+)s\b/i) ??
    (named ? reader.take(/\b(\d{1,2})(?![\dsxmr])/) : null);
  const lasts = whole ? Number(whole[1]) * (/s\s*$/.test(whole[0]) ? 1 : 60) : null;
  const count = times ? Number(times[1] ?? times[2]) : lasts ? lasts / every : null;
  const minutes = lasts === null ? (count === null ? null : (count * every) / 60) : lasts / 60;
  return going(
    { rounds: rounds(count ?? 1), pace: { by: 'every', seconds: clamp(every, 20, 300) } },
    { minutes },
  );
}

/** Work and rest by the clock: "30/15 x 4", "30s on, 15s off", "tabata". */
function byClock(reader: Reader): Going | null {
  const tabata = reader.take(/\btabata\b/i);
  const said =
    reader.take(
      /(?<![\d.:x-])(\d{1,3})s?\s*(?:on|work|arbeit|an|belastung)\b\s*[,/:&-]?\s*(\d{1,3})s?\s*(?:off|rest|pause|aus)\b/i,
    ) ?? reader.take(/(?<![\d.:x(-])(\d{2,3})s?\s*\/\s*(\d{1,3})s?(?![\d%a-wyz)/])/i);
  if (!tabata && !said) return null;
  const times =
    reader.take(/\b(\d{1,2})\s*(?:rounds?|rds?|runden?|x)(?![a-z\d])/i) ??
    reader.take(/[x×]\s*(\d{1,2})(?!\d)/i) ??
    reader.take(/\b(\d{1,2})r\b/);
  const [work, rest] = said ? [Number(said[1]), Number(said[2])] : [20, 10];
  const lasts = reader.take(/\b(?:for|f(?:ü|ue)r)\s*(\d+)s\b/i);
  const count = times?.[1] ?? (lasts ? Number(lasts[1]) / Math.max(1, work + rest) : tabata ? 8 : 1);
  return going({
    rounds: rounds(count),
    pace: { by: 'clock', work: clamp(work, 5, 300), rest: clamp(rest, 0, 300) },
  });
}

/** "3 rounds", "6-7 rds", "2x through", "3 Runden", "AMRAP 8", with what they grow by and the rest between them. */
function byRounds(reader: Reader): Going | null {
  const amrap = reader.take(/\bamrap\b/i);
  const minutes = amrap ? (reader.take(/(\d+)s\b/) ?? reader.take(/\b(\d{1,2})(?!\d)/)) : null;
  const said = amrap
    ? null
    : (reader.take(new RegExp(`(?<![\\d.:])(\\d{1,2})(?:-(\\d{1,2}))?\\s*x?\\s*${ROUND}(?![a-z])`, 'i')) ??
      reader.take(new RegExp(`${ROUND}\\s*(?:x|×|of|:)?\\s*(\\d{1,2})(?:-(\\d{1,2}))?(?![\\dsm])`, 'i')) ??
      reader.take(
        /\b(?:repeat|do|go|wdh\.?|wiederhole\w*)\s*(?:all|everything|it|this|the lot|alles)?\s*x?\s*(\d{1,2})(?:-(\d{1,2}))?\s*(?:x|r)?(?![\ds])/i,
      ));
  if (!amrap && !said) return null;
  const step = reader.take(
    /([+-])\s*(\d{1,2})\s*(?:r|reps?)?\s*(?:each|per|every|je|pro)\s*(?:round|rd|runde)/i,
  );
  const pause =
    reader.take(/(\d+)s\s*(?:rest\s*|pause\s*|off\s*)?(?:between|b\/w|btw|after|zwischen)\b[^,;:]*/i) ??
    reader.take(/\b(?:rest|pause|r)\s*[:=]?\s*(\d+)s\b(?:\s*(?:between|b\/w)\b[^,;:]*)?/i) ??
    reader.take(/(\d+)s\s*(?:rest|pause)\b/i);
  const lasts = minutes ? Number(minutes[1]) / (/s/.test(minutes[0]) ? 60 : 1) : null;
  return going(
    {
      rounds: rounds(said?.[1]),
      ...(step ? { step: clamp(Number(`${step[1]}${step[2]}`), -10, 10) } : {}),
      ...(pause ? { restSeconds: clamp(Number(pause[1]), 0, 600) } : {}),
    },
    {
      minutes: lasts,
      roundsTo: said?.[2] === undefined ? null : Number(said[2]),
      asManyRounds: amrap !== null,
    },
  );
}

const ALL_OF =
  /\b(?:then\s+)?(?:repeat\s+)?(?:all|the last|last|both|alle)\s*(two|three|four|five|six|zwei|drei|vier|fünf|\d)?\s*(?:of (?:them|these)|drills|exercises|übungen)?\s*,?\s*x?\s*(\d{1,2})\s*(?:x|r|rounds?|rds?|times|runden)?\s*$/i;

/** Heads of parts that are known as such, with or without a colon. */
const PART =
  /^(?:part|block|teil|phase|section|station|station|gruppe|group|superset|circuit|zirkel)?\s*(?:[a-h]|\d{1,2}|i{1,3})?\s*[-.:]?\s*(?:dynamic |general |specific |light |allgemein\w* |spezifisch\w* |dynamisch\w* )?(?:warm[- ]?up|activation|activate|main|main set|main part|mobility|mobilise|mobilize|raise|potentiate|cool[- ]?down|warm[- ]?down|finisher|finish|strength|plyos?|plyometrics|stability|stretching|stretches|balance work|core work|core|conditioning|prehab|rehab|accessory|accessories|skill|speed|power|prep|movement prep|pre[- ]?session|pre[- ]?match|post|recovery|home|gym|track|ice|on ice|pitch|before (?:training|game|match|practice)|after (?:training|game|match|practice)|at home|aufwärmen|aufwaermen|erwärmung|erwaermung|einlaufen|kraft|kräftigung|kraeftigung|mobilisation|mobilität|beweglichkeit|dehnen|dehnung|dehnungen|hauptteil|schluss|ausklang|cool[- ]?down|abwärmen|aktivierung|stabi|stabilisation|sprungkraft|koordination|zu hause|(?:shoulders?|hips?|ankles?|knees?|groin|trunk|core|back|elbow|wrist|hand|foot|feet|calf|hamstring|neck|schulter|hüft|knie|fuß|sprunggelenk) ?-?(?:prehab|rehab|mobility|strength|stability|care|health|activation|prep|mobilisation|kraft|stabi)|lower body|upper body|legs|arms|shoulders|hips|ankles?|trunk|feet|beine|oberkörper|rumpf|schultern|füße)(?:\s*(?:work|block|part|circuit|day|session|drills|exercises|übungen|teil|programm|routine|set))?$/i;

/** A head, with the words that name it and what stands behind it on the same line. */
export interface HeadRead extends Head {
  readonly words: string;
  readonly tail: string;
}

/** Minutes that a part can take; what is beyond them is no time of a part. */
const inMinutes = (minutes: number | null | undefined): number | null =>
  minutes === null || minutes === undefined || minutes < 0.5 || minutes > 120 ? null : minutes;

const head = ({ minutes, ...part }: Partial<HeadRead>): HeadRead => ({
  circuit: null,
  roundsTo: null,
  asManyRounds: false,
  ofLast: null,
  words: '',
  tail: '',
  ...part,
  minutes: inMinutes(minutes),
});

const circuitIn = (reader: Reader) => everySo(reader) ?? byClock(reader) ?? byRounds(reader);

/** What stands behind the mark of a head on its line: "30/15: squat, plank", "every 2 min x 5: bounds 6", "3 rounds of squat 10". */
function splitHead(text: string): { front: string; tail: string } {
  const colon = /^([^:]{2,60}?)\s*:\s+(.+)$/.exec(text);
  if (colon) return { front: colon[1] ?? text, tail: colon[2] ?? '' };
  const of = new RegExp(
    `^(\\d{1,2}(?:-\\d{1,2})?\\s*x?\\s*${ROUND})\\s+(?:of\\s+|-\\s+)?(?=\\p{L})(.+)$`,
    'iu',
  ).exec(text);
  if (of && !/^(?:with|rest|each|between|per|mit|w\/)/i.test(of[2] ?? ''))
    return { front: of[1] ?? text, tail: of[2] ?? '' };
  const tabata = /^(tabata)\s+(?!x?\d)(\p{L}.+)$/iu.exec(text);
  return tabata ? { front: tabata[1] ?? text, tail: tabata[2] ?? '' } : { front: text, tail: '' };
}

/**
 * A head of a line in one writing: it ends in a colon, is known as the name of a part, or says how a group goes. Null where the
 * line is none.
 */
export function readHead(text: string): HeadRead | null {
  const all = ALL_OF.exec(text);
  if (all && all[0].length >= text.length - 2) {
    const ofLast =
      COUNTED[all[1]?.toLowerCase() ?? ''] ?? (Number(all[1]) || (/both/i.test(text) ? 2 : 'all'));
    return head({ circuit: { rounds: rounds(all[2]) }, ofLast });
  }
  const marked = text.replace(
    /^(?:#{1,4}|-{2,}|={2,}|\*{1,2})\s*(.+?)\s*(?:#{1,4}|-{2,}|={2,}|\*{1,2})?$/,
    '$1:',
  );
  // "Strength A: (3 rounds, 60s rest)": what stands in brackets is said of the head.
  const said = marked.replace(/^([^:()]{2,60}):\s*\(([^()]+)\)\s*$/, '$1 $2:');
  const { front, tail } = splitHead(said);
  const colon = /:\s*$/.test(said) || tail !== '';
  const reader = new Reader(front.replace(/:\s*$/, ''));
  const circuit = circuitIn(reader);
  const lasts = circuit
    ? null
    : (reader.take(/\(?\b(?:ca\.?\s*|~\s*)?(?:\d+-)?(\d+)s\b\s*(?:block|teil|part)?\)?/i) ?? null);
  const words = tidy(withoutFrequency(reader.rest).text);
  const many = words.split(' ').filter(Boolean).length;
  if (words.length > LONGEST_HEAD || many > (circuit ? 3 : 6)) return null;
  const minutes = circuit ? circuit.minutes : lasts ? Number(lasts[1]) / 60 : null;
  const bare =
    words === '' ||
    /^(?:circuit|stations?|block|round|rounds|group|of|superset|zirkel|for time|each)\b/i.test(words);
  if (circuit && tail === '' && (colon || bare))
    return head({ ...circuit, minutes, words: words.replace(/^(?:of|each)$/i, '') });
  if (circuit && tail !== '' && many <= 2)
    return head({ ...circuit, minutes, words: bare ? '' : words, tail });
  if (tail !== '') return PART.test(words) ? head({ minutes, words, tail }) : null;
  if (colon || (words !== '' && PART.test(words) && (lasts !== null || !/\d/.test(front))))
    return words === '' && minutes === null ? null : head({ minutes, words });
  if (lasts && /^(?:block|teil|part)?$/i.test(words) && /block|teil|part/i.test(front))
    return head({ minutes, words: words || 'Block' });
  return null;
}
