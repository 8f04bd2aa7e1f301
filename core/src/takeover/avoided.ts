import type { RoutineItem } from '../domain/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import { readCaution } from './line/cautions.ts';
import { matchWords } from './names/match.ts';

/** What lists forbid in a word or two, and the precaution whose drills it means. */
const KINDS: readonly (readonly [RegExp, string])[] = [
  [
    /\b(?:jump\w*|hop\w*|plyo\w*|impact|bound\w*|landing\w*|spring\w*|spr(?:u|ü|ue)ng\w*|h(?:ü|ue)pf\w*)\b/i,
    'no-impact',
  ],
  [/\b(?:run\w*|sprint\w*|jog\w*|lauf\w*|rennen)\b/i, 'no-impact'],
  [/\b(?:over ?head|(?:ü|ue)ber ?kopf)\b/i, 'no-overhead'],
  [/\bdeep (?:squat|knee|bend|lunge)\w*|\btiefe?n? (?:knie|hocke)\w*/i, 'no-deep-knee-flexion'],
  [/\b(?:kneel\w*|knien|auf knien)\b/i, 'no-kneeling-pressure'],
  [/\b(?:hang|hangs|hanging|h(?:ä|ae)ngen)\b/i, 'no-hanging'],
  [/\b(?:pivot\w*|cutting|cuts|turning on)\b/i, 'no-pivoting'],
  [/\b(?:twist\w*|end[- ]?range rotation)\b/i, 'no-end-range-spinal-rotation'],
];

/** How surely words must name a drill for its ladder to be meant. */
const NAMED = 0.8;

/** The drills that what a caution forbids means: by kind, else by name, with the rest of its ladder. */
function isAvoided(reference: Reference, avoid: string): (drill: Drill) => boolean {
  const kinds = KINDS.filter(([words]) => words.test(avoid)).map(([, precaution]) => precaution);
  if (kinds.length > 0)
    return ({ contraindications }) => kinds.some((kind) => contraindications.includes(kind));
  const named = matchWords(
    reference,
    avoid.replace(/\b(?:this|next|diese|n(?:ä|ae)chste) (?:week|woche)\b|\b(?:today|heute|yet)\b/gi, ''),
  );
  const ladders = new Set(
    named.candidates
      .filter(({ score, against }) => score >= NAMED && !against)
      .flatMap(({ drill }) => reference.drills.get(drill)?.ladder ?? []),
  );
  return ({ ladder }) => ladders.has(ladder);
}

/**
 * The pain, 0-10, above which a drill of a routine stops: the limit in force, or what the routine's own cautions allow where that
 * is less. A list is never laxer than the limit.
 */
export function stopAbove(limit: number, items: readonly Pick<RoutineItem, 'caution' | 'words'>[]): number {
  const said = items.flatMap(({ caution, words = '' }) =>
    caution ? (readCaution(words)?.painLimit ?? []) : [],
  );
  return Math.min(limit, ...said);
}

/** A line of a routine that a caution of the same routine says to leave out, by its place. */
export interface Avoided {
  readonly index: number;
  readonly caution: string;
}

/** Drills of a routine that its own cautions say are to be left out. */
export function avoidedItems(reference: Reference, items: readonly RoutineItem[]): Avoided[] {
  const rules = items.flatMap(({ caution, words = '' }) => {
    const avoid = caution ? readCaution(words)?.avoid : undefined;
    return avoid ? [{ caution: words, avoids: isAvoided(reference, avoid) }] : [];
  });
  return items.flatMap((item, index) => {
    const drill = item.caution ? undefined : reference.drills.get(item.drill);
    const rule = drill ? rules.find(({ avoids }) => avoids(drill)) : undefined;
    return rule ? [{ index, caution: rule.caution }] : [];
  });
}
