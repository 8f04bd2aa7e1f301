import { Button, Group, Text } from '@mantine/core';
import { optionLabel } from '@yonder/core/words';
import { Link, useLocation } from 'react-router';
import { useReference } from '../../app/reference.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { useMethodsQuery } from '../methods/methodEndpoints.ts';
import classes from './Story.module.css';

/** Where another way than the practice's was chosen for the athlete, and the way to all of them. */
export function StoryMethods() {
  const reference = useReference();
  const { athlete } = useWorkspace();
  const { search } = useLocation();
  const { data } = useMethodsQuery(athlete.id);
  const own = (data?.athlete ?? []).filter((row) => row.ended === null);
  return (
    <Group className={`card ${classes.methods}`} justify="space-between" wrap="nowrap">
      <Text size="sm">
        <b>Methods:</b>{' '}
        {own.length === 0
          ? 'the practice’s choices hold.'
          : own
              .map(({ school, option, by }) => `${optionLabel(reference, school, option)} (${by})`)
              .join('; ')}
      </Text>
      <Button
        component={Link}
        to={{ pathname: '../methods', search }}
        relative="path"
        size="xs"
        variant="light"
      >
        {own.length === 0 ? 'See or change' : `All, ${own.length} for this athlete`}
      </Button>
    </Group>
  );
}
