import { Title } from '@mantine/core';
import { useState } from 'react';
import { Navigate } from 'react-router';
import { Locked } from '../../app/Allowed.tsx';
import { AthleteForm, EMPTY_ATHLETE } from './AthleteForm.tsx';
import classes from './AthletesPage.module.css';
import { useCreateAthleteMutation } from './athleteEndpoints.ts';

/** Adds an athlete and goes on to the stop-and-refer questions. */
export function NewAthletePage() {
  const [added, setAdded] = useState<string | null>(null);
  const [create, { isLoading, error }] = useCreateAthleteMutation();
  // Only once the form has forgotten what it kept: leaving it asks about nothing then.
  if (added) return <Navigate to={`/athletes/${added}/gate`} replace />;
  return (
    <div className={classes.page}>
      <Title order={1} size={26} mb="sm">
        New athlete
      </Title>
      <Locked least="assistant">
        <AthleteForm
          initial={EMPTY_ATHLETE}
          submitLabel="Add and answer the stop-and-refer questions"
          busy={isLoading}
          error={error}
          keptAs={{ key: 'athlete/new', label: 'A new athlete' }}
          onSubmit={(fields) =>
            create(fields)
              .unwrap()
              .then(
                ({ id }) => {
                  setAdded(id);
                  return true;
                },
                () => false, // shown in the form
              )
          }
        />
      </Locked>
    </div>
  );
}
