import { Text } from '@mantine/core';
import { nameOf, number, OCCASION_LABEL, WEEKDAY_LABEL } from '@yonder/core/words';
import { weekOf } from '@yonder/core/week';
import { useMemo } from 'react';
import { useReference } from '../../app/reference.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './Occasions.module.css';
import { useOccasionsQuery } from './routineEndpoints.ts';

/** Regions named first; the rest is folded. */
const NAMED = 3;

/** What all routines in force put on each region in a week, against its limit, and where hard days clash: said, not forbidden. */
export function WeekNote() {
  const reference = useReference();
  const { athlete, assessment } = useWorkspace();
  const { data } = useOccasionsQuery(athlete.id);
  const week = useMemo(
    () =>
      weekOf(
        reference,
        assessment.standing,
        new Map((data ?? []).map(({ occasion, days }) => [occasion, days])),
      ),
    [reference, assessment, data],
  );
  const { others, routine } = assessment.standing;
  if ((routine ? 1 : 0) + others.length < 2) return null;
  const over = week.loads.filter(({ minutes, limit }) => limit !== null && minutes > limit);
  return (
    <details className={classes.week}>
      <summary>
        The week of all occasions:{' '}
        {week.loads
          .slice(0, NAMED)
          .map(({ region, minutes }) => `${nameOf(reference, region).toLowerCase()} ${number(minutes, 0)}`)
          .join(', ')}{' '}
        load-minutes
        {over.length > 0
          ? `; over the limit: ${over.map(({ region }) => nameOf(reference, region).toLowerCase()).join(', ')}`
          : ''}
        {week.clashes.length > 0
          ? `; ${week.clashes.length === 1 ? 'one clash' : `${week.clashes.length} clashes`}`
          : ''}
      </summary>
      <ul>
        {week.clashes.map((clash) => (
          <li key={`${clash.region}/${clash.day}/${clash.occasion}/${clash.next}`}>
            Hard work for {nameOf(reference, clash.region).toLowerCase()} on {WEEKDAY_LABEL[clash.day]} (
            {OCCASION_LABEL[clash.occasion].toLowerCase()}), and the next day it is asked for again (
            {OCCASION_LABEL[clash.next].toLowerCase()}).
          </li>
        ))}
        {week.loads.map(({ region, minutes, limit, parts }) => (
          <li key={region} data-over={(limit !== null && minutes > limit) || undefined}>
            <b>{nameOf(reference, region)}</b> {number(minutes, 1)}
            {limit === null ? '' : ` of at most ${number(limit, 0)}`}:{' '}
            {parts
              .map((part) => `${OCCASION_LABEL[part.occasion].toLowerCase()} ${number(part.minutes, 1)}`)
              .join(', ')}
          </li>
        ))}
      </ul>
      <Text size="sm" c="var(--muted)">
        Load-minutes are a count of the drills alone, for planning: they say nothing of sport, and nothing of
        risk.
      </Text>
    </details>
  );
}
