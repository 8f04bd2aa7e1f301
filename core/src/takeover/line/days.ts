/** On what days a list is done: days by name (1 = Monday), how often a week, and what else it says. */
export interface WrittenDays {
  readonly days: readonly number[];
  readonly perWeek: { readonly from: number; readonly to: number } | null;
}

const DAY: readonly (readonly [number, string])[] = [
  [1, 'mondays?|mon|montags?|mo'],
  [2, 'tuesdays?|tues?|dienstags?|di'],
  [3, 'wednesdays?|wed|weds|mittwochs?|mi'],
  [4, 'thursdays?|thurs?|thu|thur|donnerstags?|do'],
  [5, 'fridays?|fri|freitags?|fr'],
  [6, 'saturdays?|sat|samstags?|sonnabends?|sa'],
  [7, 'sundays?|sun|sonntags?|so'],
];
const NAMED = DAY.map(([, names]) => names).join('|');
const NAMED_DAY = new RegExp(`(?:${NAMED}|m|t|w|f)(?![\\p{L}\\d])\\.?`, 'iuy');
const BEFORE_DAYS = /^(?:on|am|jeden|every|each|days?|tage?)(?!\p{L})\s*:?\s*/iu;
const WHEN =
  '(?:daily|every day|each day|t(?:ä|ae)glich|jeden tag|every (?:other|second) day|eod|jeden (?:zweiten|2\\.?) tag|alle (?:zwei|2) tage|evenings?|mornings?|abends|morgens|am\\s*[+&/]\\s*pm|before (?:training|bed|practice|breakfast)|after (?:training|practice)|vor dem training|nach dem training|rest days?|on rest days|off days?|training days?|match days?|non[- ]training days?|an trainingstagen|twice (?:a|per) (?:day|week)|once (?:a|per) (?:day|week)|(?:one|two|three|four|five|six|zweimal|dreimal|viermal|einmal)\\s*(?:times|x)?\\s*(?:a|per|die|pro)?\\s*(?:day|week|woche|tag)|\\d(?:\\s*-\\s*\\d)?\\s*x?\\s*(?:times|mal|days?|sessions?|tage?)?\\s*(?:\\/|a|an|per|pro|in der|die|am|je|each)\\s*(?:weeks?|wk|w|woche|days?|d|tag)|for \\d+ (?:weeks?|wks?)|\\d+ (?:weeks?|wks?|wochen)(?: long)?)';
const OFTEN = new RegExp(`${WHEN}(?![\\p{L}\\d])`, 'iuy');
const BETWEEN = /[\s,;/+&-]*(?:(?:and|und|or|oder)(?!\p{L})[\s,;/+&-]*)?/iuy;

/** Is a text nothing but units of one kind, with marks between? Read from left to right, so that no text takes long. */
function isAllOf(text: string, unit: RegExp): boolean {
  let at = 0;
  let any = false;
  while (at < text.length) {
    unit.lastIndex = at;
    const found = unit.exec(text);
    if (!found || found[0] === '') return false;
    any = true;
    BETWEEN.lastIndex = at + found[0].length;
    at = BETWEEN.lastIndex + (BETWEEN.exec(text)?.[0].length ?? 0);
  }
  return any;
}
const TIMES =
  /(\d)(?:\s*-\s*(\d))?\s*x?\s*(?:times|mal|days?|sessions?|tage?)?\s*(?:\/|a|an|per|pro|in der|die|je|each)\s*(?:weeks?|wk|w|woche)/i;
const WORDS: readonly (readonly [RegExp, number])[] = [
  [/daily|every day|each day|täglich|taeglich|jeden tag/i, 7],
  [/every (?:other|second) day|eod|zweiten tag|alle (?:zwei|2) tage/i, 3],
  [/twice (?:a|per) week|two times|zweimal/i, 2],
  [/three times|dreimal/i, 3],
  [/four times|viermal/i, 4],
  [/once (?:a|per) week|einmal/i, 1],
];

/** Reads a line that says only when: "Mon/Wed/Fri", "2-3x/wk, evenings", "täglich"; null where it says anything else. */
export function readDays(text: string): WrittenDays | null {
  const said = text.replace(/[().!:]+$/g, '').trim();
  if (said === '') return null;
  const named = said.replace(BEFORE_DAYS, '');
  if (isAllOf(named, NAMED_DAY)) {
    const letters: Readonly<Record<string, number>> = { m: 1, t: 2, w: 3, f: 5 };
    const days = named
      .toLowerCase()
      .split(/[^\p{L}]+/u)
      .flatMap(
        (word) =>
          DAY.find(([, names]) => new RegExp(`^(?:${names})$`).test(word))?.[0] ?? letters[word] ?? [],
      );
    if (days.length > (/^[a-z]{1,2}$/i.test(named) ? 1 : 0))
      return { days: [...new Set(days)].sort(), perWeek: null };
  }
  if (!isAllOf(said, OFTEN)) return null;
  const times = TIMES.exec(said);
  const often = WORDS.find(([pattern]) => pattern.test(said))?.[1];
  return {
    days: [],
    perWeek: times
      ? { from: Number(times[1]), to: Number(times[2] ?? times[1]) }
      : often === undefined
        ? null
        : { from: often, to: often },
  };
}

const FREQUENCY = new RegExp(`[\\s,;(]*\\b${WHEN}(?![\\p{L}\\d])\\)?`, 'iu');

/** How often a drill is done, where its own line says so: what is left, and the words taken out. */
export function withoutFrequency(text: string): { text: string; often: string } {
  const found = FREQUENCY.exec(text);
  if (!found || found.index === 0) return { text, often: '' };
  return {
    text: `${text.slice(0, found.index)} ${text.slice(found.index + found[0].length)}`,
    often: found[0].replace(/^[\s,;(]+|\)$/g, ''),
  };
}
