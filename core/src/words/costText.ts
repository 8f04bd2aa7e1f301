import type { WhyNot } from '../builder/index.ts';
import { percent } from './figures.ts';

/** From this share of the benefit on a drill costs anything, and from this on its least cost is said. */
const ANYTHING = 0.0005;
const LEAST_SAID = 0.005;

/**
 * What taking a drill in would cost, to follow "It": shares of the benefit between what is known at least and at most. From
 * the whole of it on no share says anything: something that is asked for would have to go.
 */
export function costText({
  atLeast,
  atMost,
}: Pick<Extract<WhyNot, { kind: 'costs' }>, 'atLeast' | 'atMost'>): string {
  if (atLeast >= 1) return 'would push out what is asked for before it';
  if (atMost === null)
    return atLeast < ANYTHING ? 'is being worked out' : `costs at least ${percent(atLeast)}`;
  if (atMost < ANYTHING) return 'would cost nothing: as good a choice';
  if (atMost >= 1)
    return atLeast < LEAST_SAID
      ? 'may push out what is asked for before it'
      : `costs ${percent(atLeast)} of the benefit or more`;
  if (atLeast < LEAST_SAID) return `costs up to ${percent(atMost)} of the benefit`;
  const [low, high] = [percent(atLeast), percent(atMost)];
  return low === high ? `costs ${high} of the benefit` : `costs ${low} to ${high} of the benefit`;
}
