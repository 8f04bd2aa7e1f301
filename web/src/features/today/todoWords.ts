import type { AthleteSummary } from '@yonder/core/contracts';
import type { Reference } from '@yonder/core/reference';
import {
  DECISION_LABEL,
  duration,
  nameOf,
  OCCASION_LABEL,
  percent,
  REGION_LABEL,
  SIDE_LABEL,
  withSide,
} from '@yonder/core/words';
import { dayText, shortDay } from '../../app/today.ts';

export type Todo = AthleteSummary['todo'][number];

/** How a line of Today reads: what happened, what it could change, where its work is. */
export interface TodoWords {
  readonly group: 'first' | 'work' | 'quiet';
  /** Larger is more urgent, within its group. */
  readonly rank: number;
  readonly what: string;
  readonly changes: string;
  readonly action: string;
  /** The step of the workspace, with its query. */
  readonly to: string;
}

const drillsText = (n: number) => `${n} ${n === 1 ? 'drill hangs' : 'drills hang'} on it`;

/** Says what waits, in the practitioner's words. */
export function todoWords(reference: Reference, todo: Todo): TodoWords {
  switch (todo.kind) {
    case 'blocked':
      return {
        group: 'first',
        rank: todo.region === 'all' ? 100 : 80,
        what: `Stop sign open: ${reference.redFlags.get(todo.redFlag)?.question ?? todo.redFlag}`,
        changes:
          todo.region === 'all' ? 'Stops all they do' : `Closes ${REGION_LABEL[todo.region].toLowerCase()}`,
        action: 'Record who has seen them',
        to: 'story',
      };
    case 'referred':
      return {
        group: 'first',
        rank: 90,
        what: `To be looked at: ${withSide(nameOf(reference, todo.region).toLowerCase(), todo.side)}, pain ${todo.pain}/10, ${shortDay(todo.since)}`,
        changes: 'Nothing loads it until a named person ends this',
        action: 'End it, once seen',
        to: 'story',
      };
    case 'pain':
      return {
        group: todo.above ? 'first' : 'work',
        rank: todo.above ? 70 + todo.pain : 40 + todo.pain,
        what: `Pain ${todo.pain}/10 in ${nameOf(reference, todo.drill).toLowerCase()}, ${shortDay(todo.date)}`,
        changes: todo.above ? 'Over the limit: that drill stopped' : 'Not a clean session',
        action: 'Look',
        to: 'progress',
      };
    case 'not-asked':
      return {
        group: 'first',
        rank: 60,
        what: todo.never
          ? 'Stop-and-refer questions not asked yet.'
          : `${todo.topics} stop-and-refer topics are due again.`,
        changes: todo.never ? 'Nothing can be built before' : 'Nothing new can be issued before',
        action: 'Ask now',
        to: 'gate',
      };
    case 'decisions':
      return {
        group: 'work',
        rank: 30 + todo.items,
        what: `${nameOf(reference, todo.drill)}: ${(DECISION_LABEL as Record<string, string>)[todo.decision] ?? todo.decision}?`,
        changes: `${todo.items} ${todo.items === 1 ? 'drill waits' : 'drills wait'} for your word${todo.occasion ? `, ${OCCASION_LABEL[todo.occasion].toLowerCase()}` : ''}`,
        action: 'Decide',
        to: todo.occasion ? `progress?for=${todo.occasion}` : 'progress',
      };
    case 'review':
      return {
        group: 'work',
        rank: 20 + Math.min(todo.days, 60) / 10,
        what: `${nameOf(reference, todo.precaution)}: review was due ${dayText(todo.until)}; it still binds.`,
        changes: `${todo.days} ${todo.days === 1 ? 'day' : 'days'} past its date`,
        action: 'Review',
        to: 'story',
      };
    case 'rescreen': {
      const region = reference.tests.get(todo.test)?.region ?? 'ankle-foot';
      return {
        group: 'quiet',
        rank: todo.chance * todo.drills,
        what: `Rescreen ${withSide(nameOf(reference, todo.test).toLowerCase(), todo.side)}: ${duration(todo.seconds)}. Result of ${shortDay(todo.date)}, near the line.`,
        changes: `${percent(todo.chance)} to turn a choice; ${drillsText(todo.drills)}`,
        action: 'Screen',
        to: `screen?region=${region}`,
      };
    }
  }
}

/** The side a line is about, where it is about one. */
export function todoSide(todo: Todo): 'left' | 'right' | null {
  const side = 'side' in todo ? todo.side : null;
  return side === 'left' || side === 'right' ? side : null;
}

/** The name of a side for those who do not see its mark. */
export const sideName = (side: 'left' | 'right'): string => SIDE_LABEL[side];
