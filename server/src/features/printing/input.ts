import type { Occasion, RoutineItem, Section, Weekday } from '@yonder/core/domain';
import { isLine, PAUSE } from '@yonder/core/reference';
import type { Drill, Reference } from '@yonder/core/reference';
import { shownBy } from '@yonder/core/figure';
import { WEEKDAY_LABEL } from '@yonder/core/words';

/** Everything printed on a handout, as plain data: it is printed on another thread. */
export interface HandoutInput {
  readonly athlete: string;
  readonly practice: string;
  readonly occasion: Occasion;
  /** Days of the week and times a day it is meant for; no days = as the drills say. */
  readonly days: readonly Weekday[];
  readonly timesPerDay: number;
  readonly number: number;
  readonly issuedOn: string;
  readonly issuedBy: string;
  readonly mode: 'prepare' | 'build' | 'restore';
  readonly totalSeconds: number;
  readonly sections: readonly Section[];
  /** The drills of the lines as they were when it was issued, and those whose pictures they show. */
  readonly drills: ReadonlyMap<string, Drill>;
  readonly items: readonly RoutineItem[];
  /** The school's limit: stop above it. */
  readonly stopAbove: number;
  /** Athlete wording of each precaution in force. */
  readonly precautions: readonly string[];
  readonly handling: ReadonlyMap<string, readonly string[]>;
  /** What each item is for, in words, by its id. */
  readonly serves: ReadonlyMap<string, string>;
  /** Rules it was issued against, each with who said why, as sentences. */
  readonly overrides: readonly string[];
}

/** What is printed of the drills of some lines: their words, and the drill whose picture stands for theirs. */
export function printedDrills(
  { drills }: Pick<Reference, 'drills'>,
  items: readonly RoutineItem[],
): ReadonlyMap<string, Drill> {
  return new Map(
    items.flatMap((item) => {
      const drill = drills.get(item.drill);
      if (!drill) return [];
      const shown = shownBy(drills, drill);
      // A picture of its own or of one drill: whoever it comes from by way of others is not printed.
      return [
        [shown.id, shown] as const,
        [drill.id, shown === drill ? drill : { ...drill, from: shown.id }] as const,
      ];
    }),
  );
}

/** How often it is meant: on its days, else as often as the drill that is meant most seldom allows, before training each time. */
export function timesText(input: HandoutInput): string {
  if (input.days.length > 0) {
    const days =
      input.days.length === 7 ? 'every day' : input.days.map((day) => WEEKDAY_LABEL[day]).join(', ');
    return input.timesPerDay > 1 ? `${days}, ${input.timesPerDay} times a day` : days;
  }
  if (input.mode === 'prepare') return 'each time';
  const times = input.items.flatMap(({ drill }) =>
    isLine(drill) ? [] : (input.drills.get(drill)?.dose.timesPerWeek ?? []),
  );
  const least = Math.max(1, ...times.map((one) => one.min));
  const most = Math.max(least, Math.min(7, ...times.map((one) => one.max)));
  return least === most ? `${least} days a week` : `${least} to ${most} days a week`;
}

/** Places of the lines: drills and parts in own words are counted, rests are not. */
export function numbersOf(items: readonly RoutineItem[]): (number | null)[] {
  let number = 0;
  return items.map(({ drill, caution }) => (drill === PAUSE || caution ? null : (number += 1)));
}
