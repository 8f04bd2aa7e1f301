import { Alert, Loader, SegmentedControl, Text, Title } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { errorText } from '../../app/api.ts';
import { useReference } from '../../app/reference.tsx';
import { useMethodsQuery } from './methodEndpoints.ts';
import type { MethodOwner } from './methodEndpoints.ts';
import { PainPatterns } from './PainPatterns.tsx';
import { SchoolCard } from './SchoolCard.tsx';
import { standingOf } from './standing.ts';
import classes from './Methods.module.css';

/** Every question on which practitioners differ, with what was chosen for the practice or for one athlete. */
export function SchoolList({ owner }: { owner: MethodOwner }) {
  const reference = useReference();
  const { data, error } = useMethodsQuery(owner);
  const [shown, setShown] = useState('all');
  if (error && !data)
    return (
      <Alert color="copper" role="alert">
        {errorText(error)}
      </Alert>
    );
  if (!data) return <Loader aria-label="Loading" />;
  const standings = reference.data.schools.map((school) => ({ school, ...standingOf(school, data) }));
  const differing = standings.filter(({ school, now, own }) =>
    owner === null ? now.option !== school.default : own !== null,
  );
  return (
    <>
      <div className={classes.tools}>
        <SegmentedControl
          size="xs"
          aria-label="Questions shown"
          value={shown}
          onChange={setShown}
          data={[
            { value: 'all', label: `All ${standings.length}` },
            {
              value: 'own',
              label: `${owner === null ? 'Not the default' : 'For this athlete'}: ${differing.length}`,
            },
          ]}
        />
        <nav aria-label="Questions" className={classes.jump}>
          {differing.map(({ school }) => (
            <a key={school.id} href={`#${school.id}`}>
              {school.question}
            </a>
          ))}
        </nav>
      </div>
      {(shown === 'all' ? standings : differing).map(({ school }) => (
        <SchoolCard key={school.id} school={school} methods={data} owner={owner} />
      ))}
      {shown === 'own' && differing.length === 0 ? (
        <Text className="card" p="md">
          {owner === null ? 'Every default holds.' : 'The practice’s choices hold.'}
        </Text>
      ) : null}
    </>
  );
}

/** Methods: where good practitioners differ, what this practice chose, and what each choice does. */
export function MethodsPage() {
  return (
    <div className={classes.page}>
      <Title order={1} size={26}>
        Methods
      </Title>
      <Text c="var(--muted)" mb="sm" maw={820}>
        Questions on which good practitioners differ. What is chosen here holds for all athletes; an athlete
        (Story, “Methods”) or a single routine (Routine, “Methods”) may go another way. Pain limits of the
        practice’s own stand on <Link to="/figures">Figures</Link>.
      </Text>
      <SchoolList owner={null} />
      <PainPatterns />
    </div>
  );
}
