import { Text, Title } from '@mantine/core';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { SchoolList } from './MethodsPage.tsx';
import classes from './Methods.module.css';

/** The methods of one athlete: the practice's, but where another way was chosen. */
export function AthleteMethodsPage() {
  const { athlete } = useWorkspace();
  return (
    <div className={classes.ofAthlete}>
      <Title order={2} size={20}>
        Methods for {athlete.name}
      </Title>
      <Text c="var(--muted)" size="sm" mb="xs">
        The practice’s choices hold until another is made here; it then stands before them, in the ridge, in
        routines and in progress.
      </Text>
      <SchoolList owner={athlete.id} />
    </div>
  );
}
