import { demandIndexOf, drillSeconds } from './drillFigures.ts';
import type { Drill, EntryCriterion, Ladder } from './types.ts';

type Derived = 'ladder' | 'level' | 'easeTo' | 'progressTo' | 'demandIndex' | 'estimatedSeconds';

/** An entry criterion as it is kept: of a level before, only which one; how it has to be done stands with that drill. */
type StoredCriterion = Omit<EntryCriterion, 'text'> & { text?: string };

/** A drill as it is kept: without what its ladder and its own figures say. */
export type StoredDrill = Omit<Drill, Derived | 'entryCriteria'> & {
  entryCriteria: readonly StoredCriterion[];
};

const UNITS: Readonly<Record<Drill['dose']['measure'], string>> = {
  reps: 'reps',
  'hold-seconds': 's',
  seconds: 's',
  metres: 'm',
  contacts: 'contacts',
};

/** The diary criterion of a level: the level before it, done as that one's own way up asks. */
function beforeIt(before: StoredDrill): EntryCriterion {
  const { measure } = before.dose;
  const { amountReached, holdReached, setsCompleted, bothSides, maxPain, maxRpe, sessions } =
    before.progressWhen;
  const held = measure === 'hold-seconds';
  const amount = held ? (holdReached ?? amountReached) : amountReached;
  const holdSeconds = held ? null : holdReached;
  const times = `${setsCompleted} x ${amount ?? ''} ${UNITS[measure]}${holdSeconds === null ? '' : ` x ${holdSeconds} s`}`;
  const sides = bothSides ? ' both sides' : '';
  const often = `in ${sessions} session${sessions === 1 ? '' : 's'}`;
  return {
    text: `Before it (${before.name}): ${times}${sides}, pain <= ${maxPain}, effort <= ${maxRpe}, ${often}`,
    drill: before.id,
    measure,
    amount,
    holdSeconds,
    sets: setsCompleted,
    sides: bothSides ? 'both' : null,
    maxPain,
    maxRpe,
    sessions,
  };
}

/**
 * Adds to each drill what follows from its place on a ladder and from its own figures: level and neighbours, demand,
 * estimated seconds, and how the level before has to have been done. Throws for a drill that no ladder holds.
 */
export function withLadderMirrors(stored: readonly StoredDrill[], ladders: readonly Ladder[]): Drill[] {
  const places = new Map(ladders.flatMap((ladder) => ladder.drills.map((id, at) => [id, { ladder, at }])));
  const byId = new Map(stored.map((drill) => [drill.id, drill]));
  return stored.map((drill) => {
    const place = places.get(drill.id);
    if (!place) throw new Error(`no ladder holds ${drill.id}`);
    const { ladder, at } = place;
    return {
      ...drill,
      ladder: ladder.id,
      level: at + 1,
      easeTo: ladder.drills[at - 1] ?? null,
      progressTo: ladder.drills[at + 1] ?? null,
      demandIndex: demandIndexOf(drill),
      estimatedSeconds: {
        default: drillSeconds(drill, 'default'),
        min: drillSeconds(drill, 'min'),
        max: drillSeconds(drill, 'max'),
      },
      entryCriteria: drill.entryCriteria.map((criterion) => {
        const before = criterion.drill === undefined ? undefined : byId.get(criterion.drill);
        return { text: '', ...(before && beforeIt(before)), ...criterion };
      }),
    };
  });
}
