import { kitWordsOf } from '../reference/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import { asNamed, oneLetterOff, othersOf, stem } from '../search/index.ts';

/** A drill that a line may mean, and how nearly: 1 = its name word for word. */
export interface Candidate {
  readonly drill: string;
  readonly score: number;
}

/** Words that say nothing of which drill is meant. */
const FILLERS = new Set(
  'a an the of on in at to for with and or your my his her then do slow slowly easy light lightly controlled control good nice only keep set rep time before after from against using use off it effort full only no any some'.split(
    ' ',
  ),
);

/** The telling words of a text, said as the library says them, each once. */
function wordsOf(reference: Reference, text: string): string[] {
  const words = asNamed(reference, text)
    .replace(/(\d+)\s*%/g, ' p$1 ')
    .replace(/[’']s\b/g, '')
    .split(/[^\p{L}\p{N}]+/u)
    .map(stem)
    .filter((word) => word !== '' && !FILLERS.has(word) && !/^\d+$/.test(word));
  return [...new Set(words)];
}

interface Entry {
  readonly drill: Drill;
  readonly name: readonly string[];
  /** Words that fit without being in the name: ladder, kit, position, joint. */
  readonly around: ReadonlySet<string>;
}
interface Index {
  readonly entries: readonly Entry[];
  /** How telling a word is: rare ones more. */
  readonly weight: (word: string) => number;
  /** Words that stand for each other. */
  readonly same: ReadonlyMap<string, ReadonlySet<string>>;
  /** Words that somebody who writes of drills uses. */
  readonly known: ReadonlySet<string>;
}

const indexes = new WeakMap<Reference, Index>();

function indexOf(reference: Reference): Index {
  const held = indexes.get(reference);
  if (held) return held;
  const { saidAs, words, positions } = reference.data.synonyms;
  const same = othersOf(words);
  const entries = reference.data.drills
    .filter((drill) => !drill.archived)
    .map((drill): Entry => ({
      drill,
      name: wordsOf(reference, drill.name),
      around: new Set(
        wordsOf(
          reference,
          [
            reference.ladders.get(drill.ladder)?.name ?? '',
            ...kitWordsOf(drill),
            ...drill.optionalEquipment,
            positions[drill.position] ?? drill.position,
            ...drill.regions.primary.map((region) => reference.regions.get(region)?.name ?? ''),
            drill.unilateral ? 'single leg arm' : '',
            drill.category,
          ].join(' '),
        ),
      ),
    }));
  const uses = new Map<string, number>();
  for (const { name } of entries) for (const word of name) uses.set(word, (uses.get(word) ?? 0) + 1);
  const most = Math.log(1 + entries.length);
  const index: Index = {
    entries,
    weight: (word) => 0.35 + Math.log(1 + entries.length / (uses.get(word) ?? 1)) / most,
    same,
    known: new Set([
      ...uses.keys(),
      ...entries.flatMap(({ around }) => [...around]),
      ...saidAs.flatMap(({ said }) => said.split(/[^a-z]+/).map(stem)),
      ...same.keys(),
    ]),
  };
  indexes.set(reference, index);
  return index;
}

/** How nearly a word stands in a list: as it is, as another word for the same, misspelt. */
function nearness({ same }: Index, word: string, among: ReadonlySet<string> | readonly string[]): number {
  const list = [...among];
  if (list.includes(word)) return 1;
  if (list.some((other) => same.get(word)?.has(other))) return 0.8;
  if (list.some((other) => oneLetterOff(word, other))) return 0.85;
  return word.length >= 5 &&
    list.some((other) => other.length >= 5 && (other.startsWith(word) || word.startsWith(other)))
    ? 0.7
    : 0;
}

/** A text with the words mended that nobody uses and that are a letter off one that is used. */
function mended({ known }: Index, text: string): string {
  return text.toLowerCase().replace(/\p{L}{4,}/gu, (word) => {
    if (known.has(word) || known.has(stem(word)) || FILLERS.has(word)) return word;
    return [...known].find((other) => other.length > 3 && oneLetterOff(stem(word), other)) ?? word;
  });
}

/** What a word counts for that stands not in the name but in what is known of the drill. */
const AROUND = 0.6;
/** How much of a score is that everything said is met, and how much that nothing is in the name that was not said. */
const MET = 0.7;

/** Drills that the words of a line may mean, best first; those that meet less than a third of it are none. */
export function matchWords(reference: Reference, text: string, most = 6): Candidate[] {
  const index = indexOf(reference);
  const { entries, weight } = index;
  const words = wordsOf(reference, mended(index, text));
  if (words.length === 0) return [];
  const demandOf = ({ drill }: Candidate) => reference.drills.get(drill)?.demandIndex ?? 0;
  const total = words.reduce((sum, word) => sum + weight(word), 0);
  return entries
    .map(({ drill, name, around }): Candidate => {
      const met = words.reduce((sum, word) => {
        const own = nearness(index, word, name);
        const near = own > 0 ? own : AROUND * nearness(index, word, around);
        return sum + weight(word) * near;
      }, 0);
      const named = name.reduce((sum, word) => sum + weight(word), 0) || 1;
      const said = name.reduce((sum, word) => sum + weight(word) * nearness(index, word, words), 0);
      return { drill: drill.id, score: MET * (met / total) + (1 - MET) * (said / named) };
    })
    .filter(({ score }) => score > 0.33)
    .sort((a, b) => b.score - a.score || demandOf(a) - demandOf(b) || (a.drill < b.drill ? -1 : 1))
    .slice(0, most);
}
