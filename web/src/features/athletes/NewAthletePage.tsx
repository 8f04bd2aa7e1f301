import { Title } from '@mantine/core';
import { useNavigate } from 'react-router';
import { AthleteForm, EMPTY_ATHLETE } from './AthleteForm.tsx';
import classes from './AthletesPage.module.css';
import { useCreateAthleteMutation } from './athleteEndpoints.ts';

/** Adds an athlete and goes on to the stop-and-refer questions. */
export function NewAthletePage() {
  const navigate = useNavigate();
  const [create, { isLoading, error }] = useCreateAthleteMutation();
  return (
    <div className={classes.page}>
      <Title order={1} size={26} mb="sm">
        New athlete
      </Title>
      <AthleteForm
        initial={EMPTY_ATHLETE}
        submitLabel="Add and answer the stop-and-refer questions"
        busy={isLoading}
        error={error}
        onSubmit={(fields) => {
          create(fields)
            .unwrap()
            .then(
              ({ id }) => navigate(`/athletes/${id}/gate`),
              () => undefined, // shown in the form
            );
        }}
      />
    </div>
  );
}
