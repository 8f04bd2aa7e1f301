import type { Reference } from '../reference/index.ts';

/** A word without its plural. */
export function stem(word: string): string {
  if (word.length > 4 && /(?:ss|x|ch|sh)es$/.test(word)) return word.slice(0, -2);
  return word.length > 3 && /[^s]s$/.test(word) ? word.slice(0, -1) : word;
}

/** Each word of some groups with the others of its groups. */
export function othersOf(groups: readonly (readonly string[])[]): ReadonlyMap<string, ReadonlySet<string>> {
  const all = new Map<string, Set<string>>();
  for (const group of groups)
    for (const word of group) {
      const known = all.get(word) ?? new Set<string>();
      for (const other of group) if (other !== word) known.add(other);
      all.set(word, known);
    }
  return all;
}

/** A wording as a pattern: written apart, together or with a hyphen, and in the plural. */
const patternOf = (said: string) =>
  said
    .split(/[- ]+/)
    .map((word) => `${word.replace(/[^a-z0-9]/g, '\\$&')}(?:s|es)?`)
    .join('[- ]?');
const flat = (said: string) => said.replace(/[^\p{L}\p{N}]+/gu, '').replace(/s$/, '');

const translators = new WeakMap<Reference, (text: string) => string>();

/** A text, in lower case, in the words of the library: "cat cow" is "cat-camel". What nobody knows otherwise stays. */
export function asNamed(reference: Reference, text: string): string {
  const known = translators.get(reference) ?? translatorOf(reference);
  translators.set(reference, known);
  return known(text);
}

function translatorOf({ data }: Reference): (text: string) => string {
  const { saidAs } = data.synonyms;
  const means = new Map(saidAs.map((one) => [flat(one.said), one.means]));
  // Every wording at once, the longer ones first: what one has said is not said again by another.
  const patterns = saidAs.map(({ said }) => said).sort((a, b) => b.length - a.length);
  const said = new RegExp(`(?<![a-z])(?:${patterns.map(patternOf).join('|')})(?![a-z])`, 'g');
  const meant = (words: string) => {
    const singular = words.split(/[- ]+/).map(stem).join(' ');
    return ` ${means.get(flat(words)) ?? means.get(flat(singular)) ?? words} `;
  };
  return (text) => text.toLowerCase().replace(said, meant);
}
