import { Button, Group, Text } from '@mantine/core';
import { Link, useLocation } from 'react-router';
import { Allowed } from '../../app/Allowed.tsx';
import { dayText } from '../../app/today.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './Gate.module.css';
import { useGate } from './useGate.ts';

/** Who answered the gate and when, what is due, and the way to ask. */
export function GateSummary() {
  const { athlete } = useWorkspace();
  const { search } = useLocation();
  const { due, answers, topics, last } = useGate();
  const newest = [...answers.values()].find((answer) => answer.on === last);
  const [until] = topics.flatMap((topic) => answers.get(topic.id)?.until ?? []).sort();
  const to = (again: boolean) => ({
    pathname: `/athletes/${athlete.id}/gate`,
    search: again ? `${search ? `${search}&` : '?'}all=yes` : search,
  });
  return (
    <Group className={`card ${classes.summary}`} justify="space-between">
      <Text>
        {due.length === 0 ? (
          <>
            Stop-and-refer questions: all {topics.length} topics answered, last by {newest?.by},{' '}
            {dayText(last ?? '')}.{until ? ` They hold to ${dayText(until)}.` : ''}
          </>
        ) : (
          <>
            <b>Stop-and-refer questions:</b> {due.length} of {topics.length} topics not answered
            {due.length < topics.length
              ? ` (${due.map((topic) => topic.title.toLowerCase()).join(', ')})`
              : ''}
            . Nothing can be issued before.
          </>
        )}
      </Text>
      <Allowed least="assistant">
        <Button
          component={Link}
          to={to(due.length === 0)}
          size="xs"
          variant={due.length === 0 ? 'light' : 'filled'}
        >
          {due.length === 0 ? 'Ask all again' : 'Ask now'}
        </Button>
      </Allowed>
    </Group>
  );
}
