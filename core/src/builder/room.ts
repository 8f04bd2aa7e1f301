import type { RoutineItem } from '../domain/index.ts';
import { routineSeconds, TIMING } from '../dose/index.ts';
import type { Reason, ReasonOf } from '../reasons/index.ts';
import { isLine } from '../reference/index.ts';
import { optionFor } from './explain.ts';
import type { Option } from './options.ts';
import type { Prepared } from './prepared.ts';
import { limitsAgainst } from './problem.ts';
import type { LimitKind } from './problem.ts';
import { foreignness } from './rules.ts';
import { BUILDER } from './settings.ts';

type Bound = ReasonOf<'no-room'>['bound'];

/** What is full where a limit would be broken. */
const BOUND: Readonly<Record<LimitKind, Bound>> = {
  'phase-max': 'phase',
  'one-per-ladder': 'ladder',
  'release-most': 'method',
  'strengthen-most': 'method',
  'release-before': 'method',
  'static-seconds': 'method',
  'relieve-first': 'relief',
  'restore-one': 'graded',
  beside: 'alone',
  'phase-contacts': 'effort',
  fatigue: 'effort',
};

/** From what is easiest to make room for to what is hardest. */
const EASE: readonly Bound[] = [
  'ladder',
  'phase',
  'drills',
  'alone',
  'relief',
  'method',
  'time',
  'effort',
  'graded',
];
const ease = ({ bound }: { readonly bound: Bound }) => EASE.indexOf(bound);

/** The options that the drills of a draft are, each in the part where it stands. */
function standing(prepared: Prepared, drills: readonly RoutineItem[]): Option[] {
  return drills.flatMap((item) => {
    const option = optionFor(prepared, item);
    const phase = prepared.problem.phases.findIndex(({ id }) => id === item.phase);
    return option ? [phase < 0 ? option : { ...option, phase }] : [];
  });
}

/**
 * Why none of the options that would answer stands in a draft: of the one for which room is made most easily, what holds it
 * hardest. Where one fits as it is, that there is room, or that it lies away from what the day is about.
 */
export function whatBound(
  prepared: Prepared,
  items: readonly RoutineItem[],
  answering: readonly Option[],
): Reason {
  const { problem, chosen, reference, rules } = prepared;
  const drills = items.filter((item) => !isLine(item.drill));
  const stands = standing(prepared, drills);
  const used = routineSeconds(reference, items);
  const free = problem.seconds - used - (used > 0 ? TIMING.changeover : 0);
  const held = answering.map((option) => {
    const by: { bound: Bound; phase: string }[] = [
      ...(drills.length >= problem.maxDrills ? [{ bound: 'drills' as const, phase: '' }] : []),
      ...(option.seconds > free ? [{ bound: 'time' as const, phase: '' }] : []),
      ...limitsAgainst(problem, stands, option).map(({ kind, of }) => ({
        bound: BOUND[kind],
        phase: problem.phases.find(({ id }) => id === of)?.name ?? '',
      })),
    ];
    return { drill: option.drill, hardest: by.sort((a, b) => ease(b) - ease(a))[0] };
  });
  const fitting = held.filter(({ hardest }) => hardest === undefined);
  const [nearest] = held.flatMap(({ hardest }) => hardest ?? []).sort((a, b) => ease(a) - ease(b));
  if (nearest && fitting.length === 0)
    return { rule: 'no-room', ...nearest, minutes: chosen.minutes, maxDrills: problem.maxDrills };
  const away = fitting.every(({ drill }) => {
    const known = reference.drills.get(drill);
    return known !== undefined && foreignness(rules, known) >= BUILDER.foreignCost;
  });
  return { rule: away ? 'away-from-today' : 'room-left' };
}
