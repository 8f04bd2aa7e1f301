/**
 * A line with every mark of the field in one writing: durations as "90s", metres as "60m", counts as "10r", breaths as "5b",
 * lengths as "4len", sets and "times" as "x", decimal points. What is not an amount stays as it was typed.
 */
export function inUnits(text: string): string {
  return RULES.reduce((said, [pattern, by]) => said.replace(pattern, by as string), text)
    .replace(/\s+/g, ' ')
    .trim();
}

const N = '\\d+(?:\\.\\d+)?';
const MIN = "(?:min(?:ute)?[sn]?\\b\\.?|mins?\\b\\.?|')";
const SEC = "(?:s(?:ec(?:ond)?s?|ek(?:unden?)?)?\\b\\.?|\"|'')";

const rounded = (value: number) => String(Math.round(value * 100) / 100);
const seconds = (minutes: string, rest = '0') => `${rounded(Number(minutes) * 60 + Number(rest))}s`;

type Rule = readonly [RegExp, string | ((...found: string[]) => string)];
const rule = (pattern: string, by: Rule[1]): Rule => [new RegExp(pattern, 'gi'), by];

const RULES: readonly Rule[] = [
  rule('[\u2018\u2019\u2032\u00b4`]', "'"),
  rule('[\u201c\u201d\u201e\u2033]', '"'),
  rule('[\u2010-\u2015\u2212]', '-'),
  rule('->|=>|[\u2192\u21d2\u2794]', ' \u2192 '),
  rule('[\u00d7\u2715\u2716]', 'x'),
  rule('\u00bd', '1/2'),
  rule('\\s&\\s', ' and '),
  rule('(\\d)\\s*1/2(?=\\s*(?:min|h\\b))', '$1.5'),
  rule('\\b(?:half a|1/2|halbe)\\s*(?:minute|min)\\b', '30s'),
  // Decimal comma: only before a unit, as "8, 8" and "15,12,10" are lists.
  rule('(\\d),(\\d)(?=\\s*(?:kg|kilo|min|km|s\\b|sec|sek|m\\b|h\\b))', '$1.$2'),
  rule('(\\d\\s?x\\s?\\d+)\\s?e\\b(?!\\.)', '$1 ea'),
  // Names that hold figures are no amounts.
  rule('\\b90\\s*[/-]\\s*90s?\\b', 'ninety-ninety'),
  rule('\\b([1-4])[ -](way|legged|leg|arm|armed|hand|foot|feet|point|pt|beinig|armig)(s?)\\b', '$1_$2$3'),
  rule('\\bfig(?:ure)?[ -]?(?:of[ -])?([48])s?\\b', (_a, n) => (n === '4' ? 'figure-four' : 'figure-eight')),
  rule('(\\d)\\s*(?:\u00b0|deg(?:rees?)?\\b|grad\\b)', '$1\u00b0'),
  // Durations.
  rule(`(\\d+)\\s*(?:min(?:ute)?[sn]?\\.?|')\\s*(?:and|und)?\\s*(\\d{1,2})\\s*${SEC}`, (_a, m, s) =>
    seconds(m ?? '', s),
  ),
  rule("(\\d+)\\s*(?:min|')\\s*(\\d{2})(?!\\d|\\s*(?:x|r\\b|s\\b|sec|\"|'|[-.,]\\d))", (_a, m, s) =>
    seconds(m ?? '', s),
  ),
  rule(
    `(${N})\\s*(?:-|to|bis)\\s*(${N})\\s*${MIN}`,
    (_a, a, b) => `${rounded(Number(a) * 60)}-${seconds(b ?? '')}`,
  ),
  rule(`(${N})\\s*${MIN}`, (_a, m) => seconds(m ?? '')),
  rule('\\b(\\d+)\\s*mn\\b', (_a, m) => seconds(m ?? '')),
  rule('\\ba minute\\b|\\beine minute\\b', '60s'),
  rule(`(\\d)\\s*${SEC}`, '$1s'),
  rule('(\\d+)s\\s*(?:-|to|bis)\\s*(\\d+)s', '$1-$2s'),
  rule('(?<![\\d:])(\\d{1,2}):([0-5]\\d)(?![\\d:])', (_a, m, s) => seconds(m ?? '', s)),
  // Distances.
  rule(`(${N})\\s*(?:km|kilomet(?:er|re)s?)\\b`, (_a, d) => `${rounded(Number(d) * 1000)}m`),
  rule(`(${N})\\s*(?:yds?|yards?)\\b`, (_a, d) => `${Math.round(Number(d) * 0.9144)}m`),
  rule('(\\d)\\s*(?:m|met(?:er|re)n?s?)\\b\\.?', '$1m'),
  // Counts.
  rule('(\\d+)\\s*(?:breaths?|breathes|atemz(?:\u00fc|ue)ge|atemzug)(?![a-z])', '$1b'),
  rule('(\\d+)\\s*(?:lengths?|laps?|bahnen?|l(?:\u00e4|ae)ngen?|widths?)(?![a-z])', '$1len'),
  rule('(\\d)\\s*(?:mal|times|\\*)\\s*(?=\\d)', '$1x'),
  rule(
    '(\\d)\\s*(?:reps?|repetitions?|wdhl?g?n?|wh|wiederholungen|times|mal|contacts|bodenkontakte|kontakte|touches|steps?|schritte)(?![a-z])\\.?',
    '$1r',
  ),
  rule(
    '(\\d)\\s*(?:sets?|s(?:\u00e4|ae)tze?n?|satz|serien?|durchg(?:\u00e4|ae)nge)(?![a-z])\\.?\\s*(?:of|\u00e0|a|mit|with|x|je|\u00e1|@|,|:|-)?\\s*(?=(?:\\d|max\\b|amrap\\b))',
    '$1x',
  ),
  rule('(\\d)\\s*x\\s*(?=(?:\\d|max\\b|amrap\\b))', '$1x'),
  rule(
    '(\\d(?:s|m|r|b|len)?)\\s*(?:x|,|for|\u00e0|-|@)\\s*(\\d{1,2})\\s*(?:sets?|s(?:\u00e4|ae)tze?|serien?)(?![a-z])',
    '$1x$2set',
  ),
  rule('(\\d(?:s|m|r|b|len))\\s*x\\s*(?=\\d)', '$1x'),
  rule('(\\d{1,2})\\s*(?:sets?|s(?:\u00e4|ae)tze?|serien?)(?![a-z])', '$1set'),
  rule('(\\d)\\s*(?:-|to|bis)\\s*(?=\\d)', '$1-'),
];
