import { COVER_MATCH, kitWordsOf } from '../reference/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import MiniSearch from 'minisearch';
import { oneLetterOff } from './oneLetterOff.ts';
import { asNamed, othersOf } from './said.ts';

/** What is said in several words and meant as one. */
const PHRASES: readonly (readonly [RegExp, string])[] = [
  [/\b(no|without( any)?) (kit|equipment|gear)\b/g, 'nokit'],
  [/\b(low|light|little|easy)[ -]load(ed)?\b/g, 'lowload'],
  [/\bwarm[ -]up\b/g, 'warmup'],
];
/** Words that say nothing about a drill: of a sentence the others count. */
const FILLERS = new Set(
  'a an the for with and or of in on to at my his her some something anything drill drills exercise exercises up one two three four five ten minute minutes min seconds'.split(
    ' ',
  ),
);

const termsOf = (text: string) =>
  PHRASES.reduce((said, [phrase, word]) => said.replace(phrase, word), text.toLowerCase())
    .split(/[\s,;/-]+/)
    .filter((word) => word.length > 1 && !FILLERS.has(word) && !/^\d+$/.test(word));

interface Index {
  readonly drills: MiniSearch;
  readonly synonyms: ReadonlyMap<string, ReadonlySet<string>>;
}

const indexes = new WeakMap<Reference, Index>();

function indexOf(reference: Reference): Index {
  const known = indexes.get(reference);
  if (known) return known;
  const drills = new MiniSearch({
    fields: ['name', 'ladder', 'serves', 'sore', 'regions', 'kit', 'words'],
    tokenize: termsOf,
    searchOptions: { boost: { name: 4, ladder: 2, serves: 2, sore: 8 } },
  });
  drills.addAll(
    reference.data.drills.map((drill: Drill) => ({
      id: drill.id,
      name: drill.name,
      ladder: reference.ladders.get(drill.ladder)?.name ?? '',
      serves: drill.serves
        .filter((s) => s.match >= COVER_MATCH)
        .map((s) => reference.restrictions.get(s.restriction)?.name ?? '')
        .join(' '),
      sore: drill.serves
        .filter((s) => s.match >= COVER_MATCH && s.restriction.endsWith('irritability'))
        .map((s) => `sore ${reference.restrictions.get(s.restriction)?.region ?? ''}`)
        .join(' '),
      regions: drill.regions.primary.map((region) => reference.regions.get(region)?.name ?? '').join(' '),
      kit: kitWordsOf(drill).join(' '),
      words: [
        drill.category,
        drill.position,
        drill.contraction,
        ...(drill.category === 'raise' ? ['warmup'] : []),
        ...(kitWordsOf(drill).length === 0 ? ['nokit'] : []),
        ...(drill.loadClass === 'unloaded' ||
        (drill.loadClass === 'partial' && drill.intensityClass === 'low')
          ? ['lowload']
          : []),
      ].join(' '),
    })),
  );
  const synonyms = othersOf(reference.data.synonyms.concepts.map((group) => group.flatMap(termsOf)));
  const index = { drills, synonyms };
  indexes.set(reference, index);
  return index;
}

/** Other words for a typed one; where nobody says it like that, those of the word that it is a slip of. */
function alike({ synonyms }: Index, word: string): ReadonlySet<string> {
  const known = synonyms.get(word);
  if (known || word.length < 4) return known ?? new Set();
  const meant = [...synonyms.keys()].find((other) => other.length >= 4 && oneLetterOff(word, other));
  return meant === undefined ? new Set() : new Set([meant, ...(synonyms.get(meant) ?? [])]);
}

/** How much a drill counts for each word that it does not meet: found by most of the words, it comes after what meets all. */
const UNMET = 0.15;

/**
 * Drills for something typed, best first: every word counts, as it stands, as another word for the same, or misspelt by a
 * letter or two; what has a name of its own in the library is looked for by that as well ("cat cow"). With `fill`, where
 * nothing meets every word, what meets most of them, and fewer than that many are filled up with what misses one word. Null
 * when nothing was typed.
 */
export function searchDrills(
  reference: Reference,
  text: string,
  fill = 0,
): ReadonlyMap<string, number> | null {
  const words = termsOf(text);
  if (words.length === 0) return null;
  const index = indexOf(reference);
  const named = termsOf(asNamed(reference, text));
  const found = new Map(foundBy(index, words, fill));
  if (named.join() !== words.join())
    for (const [id, score] of foundBy(index, named, fill)) found.set(id, Math.max(score, found.get(id) ?? 0));
  return found;
}

function foundBy(index: Index, words: readonly string[], fill: number): [string, number][] {
  const scores = words.map((word) => {
    const own = index.drills.search(word, { prefix: true, fuzzy: word.length > 4 ? 0.2 : false });
    const others = [...alike(index, word)].flatMap((other) =>
      index.drills
        .search(other, { prefix: false, fuzzy: false })
        .map((hit) => ({ ...hit, score: hit.score * 0.5 })),
    );
    const best = new Map<string, number>();
    for (const { id, score } of [...own, ...others]) best.set(id, Math.max(score, best.get(id) ?? 0));
    return best;
  });
  const met = new Map<string, number>();
  for (const id of new Set(scores.flatMap((one) => [...one.keys()])))
    met.set(id, scores.filter((one) => one.has(id)).length);
  const most = Math.max(0, ...met.values());
  // Of two words one is not most of it.
  if (most < words.length && (fill === 0 || most * 2 <= words.length)) return [];
  const enough = [...met.values()].filter((count) => count === most).length >= fill;
  const least = enough ? most : Math.max(1, most - 1);
  return [...met]
    .filter(([, count]) => count >= least)
    .map(([id, count]) => [
      id,
      scores.reduce((sum, one) => sum + (one.get(id) ?? 0), 0) * UNMET ** (words.length - count),
    ]);
}
