import type { RoutineItem } from '../domain/index.ts';
import type { Reason, ReasonOf } from '../reasons/index.ts';
import type { Option } from './options.ts';
import type { Prepared } from './prepared.ts';
import { brokenLimit } from './problem.ts';
import { foreignness } from './rules.ts';
import { BUILDER } from './settings.ts';

/** What of an item says where it stands; where no part is given, its first will do. */
export type Placed = Pick<RoutineItem, 'drill' | 'side'> & Partial<Pick<RoutineItem, 'phase'>>;

type Bound = ReasonOf<'no-room'>['bound'];

/** What a limit of the problem is of; by its id, whatever stands behind the colon. */
const KIND: Readonly<Record<string, Bound>> = {
  time: 'time',
  'max-drills': 'drills',
  'phase-max': 'phase',
  'one-per-ladder': 'ladder',
};

/** From what is easiest to make room for to what is hardest. */
const EASE: readonly Bound[] = ['phase', 'ladder', 'drills', 'time', 'effort'];

/** The options that a draft is made of; own words and what no option is like are left out. */
function optionsOf({ problem }: Prepared, items: readonly Placed[]): Option[] {
  return items.flatMap(({ drill, side, phase }) => {
    const own = problem.options.filter((option) => option.drill === drill);
    const here = own.filter((option) => phase === undefined || option.item.phase === phase);
    return here.find((option) => option.item.side === side) ?? here[0] ?? own[0] ?? [];
  });
}

/**
 * Why none of the drills that may be used and would answer stands in a draft: the limit that the one with most room
 * breaks; else that there is room, or that they lie away from what the day is about. `answering` is not empty.
 */
export function whatBound(
  prepared: Prepared,
  items: readonly Placed[],
  answering: readonly Option[],
): Reason {
  const { problem, chosen, reference, rules } = prepared;
  const stands = optionsOf(prepared, items);
  const broken = answering.map((option) => ({ option, limit: brokenLimit(problem, [...stands, option]) }));
  const free = broken.filter(({ limit }) => limit === null || limit === 'pin');
  if (free.length > 0) {
    const away = free.every(({ option }) => {
      const drill = reference.drills.get(option.drill);
      return drill !== undefined && foreignness(rules, drill) >= BUILDER.foreignCost;
    });
    return { rule: away ? 'away-from-today' : 'room-left' };
  }
  const bound = broken.map(({ option, limit }) => ({
    bound: KIND[(limit ?? '').split(':')[0] ?? ''] ?? 'effort',
    phase: problem.phases[option.phase]?.name ?? '',
  }));
  const nearest = bound.reduce((a, b) => (EASE.indexOf(b.bound) < EASE.indexOf(a.bound) ? b : a));
  return { rule: 'no-room', ...nearest, minutes: chosen.minutes, maxDrills: problem.maxDrills };
}
