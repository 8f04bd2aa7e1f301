import type { Reference } from '../../reference/index.ts';
import { oneLetterOff, stem } from '../../search/index.ts';

/** Words of a text as the library says them, and those among them that nobody who writes of drills uses. */
interface Said {
  readonly words: readonly string[];
  readonly strange: ReadonlySet<string>;
}

/** Puts what people write in the words of the library: shorthand, German, compounds, plurals, slips of a letter. */
export interface Speech {
  readonly said: (text: string) => Said;
  /** Words without mending, for the names of drills themselves. */
  readonly plain: (text: string) => readonly string[];
}

/** Words that say nothing of which drill is meant. */
const FILLERS = new Set(
  'a an the of on in at to for with from and or your my his her then do only keep set rep time before after against using use off it its effort full some any x by as each every per out into onto over up down drill exercise work movement style both way please s l r are is that this one two'.split(
    ' ',
  ),
);
/** Fillers that are part of a name in these words only. */
const PARTS_OF_NAMES = new Set(['out', 'up', 'down', 'off', 'over', 'one', 'two', 'on', 'set']);

const folded = (text: string) =>
  text
    .toLowerCase()
    .replaceAll('ä', 'ae')
    .replaceAll('ö', 'oe')
    .replaceAll('ü', 'ue')
    .replaceAll('ß', 'ss')
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[’‘`´]/g, "'")
    .replace(/(\p{L})'(?:s)?(?!\p{L})/gu, '$1')
    .replaceAll('°', ' ');

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');

/** Sayings as one replacement, longer ones first: what one has said is not said again by another. */
function replacing(
  pairs: readonly { readonly said: string; readonly means: string }[],
): (text: string) => string {
  const flat = (said: string) => said.replace(/[^\p{L}\p{N}]+/gu, '');
  const means = new Map<string, string>();
  for (const one of pairs) means.set(flat(one.said), one.means);
  const patterns = pairs
    .map(({ said }) => said)
    .sort((a, b) => b.length - a.length)
    .map((said) =>
      said
        .split(/[- ]+/)
        .map(
          (word, _i, all) =>
            `${escaped(word)}${word.length > 2 || (all.length > 1 && word.length > 1) ? '(?:e?s)?' : ''}`,
        )
        .join('[- ]?'),
    );
  const all = new RegExp(`(?<![\\p{L}\\p{N}])(?:${patterns.join('|')})(?![\\p{L}\\p{N}])`, 'gu');
  const singular = (words: string) => words.split(/[- ]+/).map(stem).join('');
  return (text) =>
    text.replace(
      all,
      (words) =>
        ` ${means.get(flat(words)) ?? means.get(flat(singular(words))) ?? means.get(flat(words).replace(/e?s$/, '')) ?? words} `,
    );
}

/** The speech of a reference: its shorthand, German and known words. */
export function speechOf({ data }: Reference, known: ReadonlySet<string>): Speech {
  const { shorthand, german } = data.sayings;
  const inEnglish = replacing(german);
  const once = replacing(shorthand);
  // Twice: "1 leg" is "single-leg", and a stand on a single leg a balance.
  const inWords = (text: string) => once(once(text).replace(/\s+/g, ' '));
  const joined = new Set(
    [...shorthand, ...german].flatMap(({ means }) => means.split(' ')).filter((word) => word.includes('-')),
  );
  const single = new Map(
    [...german, ...shorthand]
      .filter(({ said }) => !/[^\p{L}]/u.test(said))
      .map(({ said, means }) => [said, means]),
  );
  const spoken = new Set([...shorthand, ...german].flatMap(({ said }) => said.split(/[^\p{L}]+/u).map(stem)));
  const isKnown = (word: string) => [word, stem(word)].some((one) => known.has(one) || spoken.has(one));

  const split = (text: string): string[] =>
    text
      .split(/[^\p{L}\p{N}-]+/u)
      .flatMap((word) =>
        joined.has(word) ? [word] : joined.has(stem(word)) ? [stem(word)] : word.split('-').map(stem),
      )
      .filter((word) => word !== '' && !/^\d+$/.test(word));

  /** "schulterkreisen" is "schulter" and "kreisen"; a word that is known stays whole. */
  const parted = (word: string): string => {
    if (word.length < 8 || isKnown(word)) return word;
    for (let at = word.length - 3; at >= 3; at -= 1) {
      const [left, right] = [word.slice(0, at), word.slice(at)];
      const first = [left, left.replace(/(?:en|n|s|e)$/, '')].find((part) => single.has(part));
      if (first !== undefined && single.has(right)) return `${first} ${right}`;
    }
    return word;
  };
  const mend = (word: string): string => {
    if (word.length < 5 || isKnown(word)) return word;
    return (
      [...known].find(
        (other) => other.length > 3 && !other.includes('-') && oneLetterOff(stem(word), other),
      ) ?? word
    );
  };
  const plain = (text: string): string[] => {
    const words = split(inWords(folded(text)));
    return words.filter((word) => !FILLERS.has(word) || (PARTS_OF_NAMES.has(word) && words.length < 3));
  };
  return {
    plain,
    said: (text) => {
      // Whatever a band is called by those who sell it, it is a band.
      const bands = folded(text).replace(/\p{L}{3,}-?band(?!\p{L})/gu, (word) =>
        isKnown(word) ? word : 'band',
      );
      const whole = bands.replace(/\p{L}{8,}/gu, parted);
      const mended = inEnglish(whole).replace(/(?<![\p{L}-])\p{L}{5,}(?![\p{L}-])/gu, mend);
      const words = [...new Set(plain(mended))];
      return { words, strange: new Set(words.filter((word) => !known.has(word) && !joined.has(word))) };
    },
  };
}
