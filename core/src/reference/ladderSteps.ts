import { kitWordsOf } from './kit.ts';
import type { Reference } from './createReference.ts';
import type { Drill, Ladder } from './types.ts';

/** What makes the next level of a ladder harder. */
export const HARDER_BY = ['load', 'lever', 'range', 'stability', 'speed', 'attention', 'endurance'] as const;
/** What makes a level harder than the one before. */
export type HarderBy = (typeof HARDER_BY)[number];

/** One step up a ladder: from which drill to which, and by what it gets harder, in words. */
export interface LadderStep {
  readonly from: string;
  readonly to: string;
  readonly harder: readonly { readonly by: HarderBy; readonly text: string }[];
}

const LOAD_WORDS = ['no load', 'part of the body weight', 'the full body weight or more', 'impact'] as const;
const LOAD_RANK = { unloaded: 0, partial: 1, full: 2, impact: 3 } as const;

/** How little support a position gives: lying 0 to one leg 4. */
const SUPPORT: Readonly<Record<Drill['position'], number>> = {
  supine: 0,
  prone: 0,
  'side-lying': 1,
  seated: 1,
  quadruped: 2,
  'tall-kneeling': 2,
  'half-kneeling': 2,
  standing: 3,
  hanging: 3,
  'single-leg-standing': 4,
  moving: 4,
};

const WEIGHTS: ReadonlySet<string> = new Set([
  'dumbbell',
  'kettlebell',
  'long-band',
  'mini-band',
  'finger-band',
]);
const ATTENTION = /eyes|head|catch|toss|call|signal|mirror|reaction|juggl/;
const LEVER = /long-lever|straight-arm|straight-leg|long lever/;
const RANGE = /deep|reach|step|foot-elevated|end-range|overhead/;

function says(drill: Drill, pattern: RegExp): boolean {
  return pattern.test(drill.id) || pattern.test(drill.name.toLowerCase());
}

function reasonsUp(a: Drill, b: Drill): LadderStep['harder'] {
  const harder: { by: HarderBy; text: string }[] = [];
  const load = LOAD_RANK[b.loadClass];
  if (load > LOAD_RANK[a.loadClass]) harder.push({ by: 'load', text: `carries ${LOAD_WORDS[load]}` });
  const weight = kitWordsOf(b).find((kit) => WEIGHTS.has(kit) && !kitWordsOf(a).includes(kit));
  if (weight) harder.push({ by: 'load', text: `adds a ${weight.replaceAll('-', ' ')}` });
  if (says(b, LEVER) && !says(a, LEVER)) harder.push({ by: 'lever', text: 'works on a longer lever' });
  if (says(b, RANGE) && !says(a, RANGE)) harder.push({ by: 'range', text: 'goes through more range' });
  if (SUPPORT[b.position] > SUPPORT[a.position])
    harder.push({ by: 'stability', text: `less support: ${b.position.replaceAll('-', ' ')}` });
  if (b.unilateral && !a.unilateral) harder.push({ by: 'stability', text: 'one side at a time' });
  if (b.contraction === 'ballistic' && a.contraction !== 'ballistic')
    harder.push({ by: 'speed', text: 'fast instead of controlled' });
  if (says(b, ATTENTION) && !says(a, ATTENTION))
    harder.push({ by: 'attention', text: 'something else to attend to' });
  if (b.fatigue > a.fatigue) harder.push({ by: 'endurance', text: 'more tiring' });
  if (harder.length === 0 && b.skill > a.skill) harder.push({ by: 'attention', text: 'more to coordinate' });
  return harder;
}

/** The steps of a ladder with what makes each next level harder; where nothing else differs, its criteria say it. */
export function ladderSteps(reference: Reference, ladder: Ladder): LadderStep[] {
  const drills = ladder.drills.flatMap((id) => reference.drills.get(id) ?? []);
  return drills.slice(1).flatMap((to, i): LadderStep[] => {
    const from = drills[i];
    if (!from) return [];
    const harder = reasonsUp(from, to);
    const fallback = { by: 'load' as const, text: 'a harder form of the same movement' };
    return [{ from: from.id, to: to.id, harder: harder.length > 0 ? harder : [fallback] }];
  });
}
