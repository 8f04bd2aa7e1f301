import type { RoutineItem } from '../domain/index.ts';
import { schoolOption } from '../findings/index.ts';
import type { Reason } from '../reasons/index.ts';
import type { Drill } from '../reference/index.ts';
import { kitUsed } from '../reference/index.ts';
import type { Prepared } from './prepared.ts';
import { HARD_FINISH, PROMISES } from './promises.ts';
import type { Promised } from './promises.ts';
import { whatBound } from './room.ts';
import { nearestTag } from './rules.ts';
import { BROUGHT_KIT, BUILDER } from './settings.ts';
import { nearestBarrier } from './unserved.ts';

/** What was chosen for a preparation and shows as a drill of it: an option of a method, or a piece of kit brought for it. */
export type Choice =
  | { readonly kind: 'method'; readonly school: string; readonly option: string }
  | { readonly kind: 'kit'; readonly kit: string };

/** A choice, the places of the items in which it shows, and why in none. */
export interface ChoiceShown {
  readonly choice: Choice;
  readonly by: readonly number[];
  readonly because: Reason | null;
}

interface Shows extends Pick<Promised, 'last'> {
  readonly choice: Choice;
  readonly shows: (drill: Drill) => boolean;
}

function choicesOf({ reference, rules: { standing, request } }: Prepared): Shows[] {
  return [
    ...PROMISES.filter(
      ({ school, option }) => schoolOption(reference, standing.schools, school) === option,
    ).map(({ school, option, ...promise }): Shows => ({
      ...promise,
      choice: { kind: 'method', school, option },
    })),
    ...BROUGHT_KIT.filter((piece) => request.kit.includes(piece)).map((kit): Shows => ({
      choice: { kind: 'kit', kit },
      shows: (drill) => kitUsed(drill, request.kit).includes(kit),
      last: false,
    })),
  ];
}

/** What was chosen for a preparation, with the items in which it shows, or why it shows in none; nothing of other sessions. */
export function choicesShown(prepared: Prepared, items: readonly RoutineItem[]): ChoiceShown[] {
  const { reference, problem, chosen, rules } = prepared;
  if (rules.request.mode !== 'prepare') return [];
  const end = chosen.phases.at(-1);
  return choicesOf(prepared).map(({ choice, shows, last }) => {
    const by = items.flatMap(({ drill, phase }, place) => {
      const known = reference.drills.get(drill);
      return known && shows(known) && (!last || phase === end?.id) ? [place] : [];
    });
    if (by.length > 0) return { choice, by, because: null };
    const against = choice.kind === 'method' && choice.option === HARD_FINISH.option ? rules.endsSoft : null;
    if (against) return { choice, by, because: { rule: 'ends-soft', against } };
    const answering = problem.options.filter(({ drill, phase }) => {
      const known = reference.drills.get(drill);
      return known !== undefined && shows(known) && (!last || chosen.phases[phase] === end);
    });
    if (answering.length > 0) return { choice, by, because: whatBound(prepared, items, answering) };
    const showing = reference.data.drills
      .filter(shows)
      .map((drill) => ({ drill, match: nearestTag(rules, drill) }));
    // Where some come near what follows, of the nearest.
    const most = Math.max(0, ...showing.map(({ match }) => match));
    const near = showing.filter(({ match }) => most < BUILDER.rehearses || match >= most);
    const barrier = nearestBarrier(prepared, near);
    return { choice, by, because: barrier ?? { rule: 'away-from-today' } };
  });
}
