import type { Drill, Reference } from '../../reference/index.ts';
import { othersOf } from '../../search/index.ts';
import { speechOf } from './canonical.ts';
import type { Speech } from './canonical.ts';
import { isBare, isLeftOut, isOpposite, isTelling, LIGHT, traitsOf, weightOf } from './traits.ts';

/** A drill that a line may mean, and how nearly: 1 = its name word for word. */
export interface Candidate {
  readonly drill: string;
  readonly score: number;
  /** Every word is understood, and the drill is what they say and no more. */
  readonly exact: boolean;
  /** Words say otherwise than the drill is, or name what it is not: never the default. */
  readonly against: boolean;
  /** A word of the line is known to nobody. */
  readonly strange: boolean;
  /** The words leave open which drill of a ladder is meant. */
  readonly open: boolean;
}

/** What the words of a line may mean. */
export interface Matches {
  readonly candidates: readonly Candidate[];
  /** The words are the name of something that no drill is. */
  readonly absent: boolean;
}

interface Form {
  /** null: known, and no drill. */
  readonly drill: Drill | null;
  readonly words: readonly string[];
  readonly set: ReadonlySet<string>;
  /** Near to the drill and not the same. */
  readonly near: boolean;
  readonly open: boolean;
}
interface Index {
  /** Forms by each of their words. */
  readonly forms: ReadonlyMap<string, readonly Form[]>;
  readonly traits: ReadonlyMap<string, ReadonlySet<string>>;
  readonly names: ReadonlyMap<string, ReadonlySet<string>>;
  readonly same: ReadonlyMap<string, ReadonlySet<string>>;
  readonly speech: Speech;
}

const indexes = new WeakMap<Reference, Index>();

function indexOf(reference: Reference): Index {
  const held = indexes.get(reference);
  if (held) return held;
  const { sayings, synonyms } = reference.data;
  const drills = reference.data.drills.filter(({ archived }) => !archived);
  const first = speechOf(reference, new Set());
  const form = (drill: Drill | null, said: string, open = false): Form => {
    const near = said.startsWith('~');
    const words = [...new Set(first.plain(near ? said.slice(1) : said))];
    return { drill, words, set: new Set(words), near, open };
  };
  const own = drills.map((drill) => form(drill, drill.name));
  const byId = (named: string): Drill[] => drills.filter(({ id }) => id === named);
  const byLadder = (named: string): Drill[] => drills.filter(({ ladder }) => ladder === named);
  const called = Object.entries(sayings.names).flatMap(([id, all]) => {
    const one = byId(id);
    const meant = one.length > 0 ? one : byLadder(id);
    return all.flatMap((said) => meant.map((drill) => form(drill, said, one.length === 0)));
  });
  const forms = [...own, ...called, ...sayings.absent.map((said) => form(null, said))].filter(
    ({ words }) => !isBare(words),
  );
  const traits = new Map(drills.map((drill) => [drill.id, traitsOf(reference, drill)]));
  const known = new Set([
    ...forms.flatMap(({ words }) => words),
    ...[...traits.values()].flatMap((all) => [...all]),
    ...LIGHT,
  ]);
  const byWord = new Map<string, Form[]>();
  for (const one of forms) for (const word of one.words) byWord.set(word, [...(byWord.get(word) ?? []), one]);
  const index: Index = {
    forms: byWord,
    traits,
    names: new Map(own.map(({ drill, set }) => [drill?.id ?? '', set])),
    same: othersOf(synonyms.words),
    speech: speechOf(reference, known),
  };
  indexes.set(reference, index);
  return index;
}

/** What a word counts for that is met by another word for the same, by what is known of the drill, by its name beside the form. */
const NEAR = { synonym: 0.6, trait: 0.9, name: 0.9 } as const;
/** How much of a score is that everything said is met; the rest is that nothing is in the name that was not said. */
const MET = 0.62;
/** A form's word that is not said counts so much where position, kit or purpose of the drill imply it. */
const IMPLIED = 0.25;
const AGAINST = 0.6;
const NEARLY = 0.85;

/** From what score on words are the name of something that no drill is. */
const KNOWN_ABSENT = 0.75;

/** Most of the words of a line or of a form: one that is longer is no name. */
const MOST_WORDS = 14;

function scored(
  index: Index,
  form: Form,
  words: readonly string[],
  strange: ReadonlySet<string>,
): Candidate | null {
  const { drill, set } = form;
  const traits = drill ? index.traits.get(drill.id) : undefined;
  const name = drill ? index.names.get(drill.id) : undefined;
  let met = 0;
  let said = 0;
  let own = false;
  let whole = true;
  let against = false;
  for (const word of words) {
    const weight = strange.has(word) ? 0.5 : weightOf(word);
    said += weight;
    const others = index.same.get(word);
    const near = set.has(word)
      ? 1
      : traits?.has(word)
        ? NEAR.trait
        : name?.has(word)
          ? NEAR.name
          : others && [...others].some((other) => set.has(other))
            ? NEAR.synonym
            : 0;
    if (near === 1 && !isTelling(word) && !LIGHT.has(word)) own = true;
    met += weight * near;
    if (near < NEAR.trait && !LIGHT.has(word)) whole = false;
    if (near === 0 && (isTelling(word) || (!LIGHT.has(word) && !strange.has(word)))) against = true;
    if (near < 1 && isOpposite(word, set)) against = true;
  }
  let named = 0;
  let held = 0;
  for (const word of form.words) {
    const present = words.includes(word);
    const implied = !present && (isLeftOut(word) || !isTelling(word)) && (traits?.has(word) ?? false);
    const weight = weightOf(word) * (implied ? IMPLIED : 1);
    named += weight;
    if (present) held += weight;
    else if (!(implied && isLeftOut(word)) && !LIGHT.has(word)) whole = false;
  }
  // Kit and position alone name nothing, unless they are the whole name.
  if (!own && held < named) return null;
  const score = (MET * met) / said + ((1 - MET) * held) / named;
  const exact = whole && !against && !form.near && !form.open;
  return {
    drill: drill?.id ?? '',
    score: score * (against ? AGAINST : 1) * (form.near ? NEARLY : 1),
    exact,
    against,
    strange: strange.size > 0,
    open: form.open,
  };
}

/** Drills that the words of a line may mean, best first, the easier first of those that are as near. */
export function matchWords(reference: Reference, text: string, most = 6): Matches {
  const index = indexOf(reference);
  const { words, strange } = index.speech.said(text);
  if (words.length === 0 || words.length > MOST_WORDS) return { candidates: [], absent: false };
  const best = new Map<string, Candidate>();
  const meant = new Set(words.flatMap((word) => index.forms.get(word) ?? []));
  for (const form of meant) {
    const one = scored(index, form, words, strange);
    if (one && (best.get(one.drill)?.score ?? 0) < one.score) best.set(one.drill, one);
  }
  const absent = best.get('');
  best.delete('');
  const demandOf = ({ drill }: Candidate) => reference.drills.get(drill)?.demandIndex ?? 0;
  const rung = ({ drill }: Candidate) => reference.drills.get(drill)?.level ?? 0;
  const candidates = [...best.values()]
    .filter(({ score }) => score > 0.33)
    .sort(
      (a, b) =>
        Math.round((b.score - a.score) * 200) ||
        Number(b.exact) - Number(a.exact) ||
        (a.open && b.open ? rung(a) - rung(b) : 0) ||
        demandOf(a) - demandOf(b) ||
        (a.drill < b.drill ? -1 : 1),
    )
    .slice(0, most);
  return {
    candidates,
    absent:
      absent !== undefined && absent.score > Math.max(KNOWN_ABSENT, (candidates[0]?.score ?? 0) + 0.005),
  };
}

/** A text in the words of the library: German, shorthand and slips put right. */
export function inLibraryWords(reference: Reference, text: string): string {
  return indexOf(reference).speech.said(text).words.join(' ');
}

/** Do some words say how something is done, so that a drill without them is another? */
export function tellsHow(reference: Reference, text: string): boolean {
  return indexOf(reference).speech.said(text).words.some(isTelling);
}
