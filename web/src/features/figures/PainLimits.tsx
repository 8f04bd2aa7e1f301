import { Alert, Button, Group, Text, Title } from '@mantine/core';
import { painLimits, schoolOption } from '@yonder/core/findings';
import { useState } from 'react';
import { errorText } from '../../app/api.ts';
import { useReference } from '../../app/reference.tsx';
import { useAppSelector } from '../../app/store.ts';
import { UnitInput } from '../../components/UnitInput.tsx';
import { useFiguresQuery, useSetPainLimitsMutation } from './figureEndpoints.ts';
import classes from './Figures.module.css';

const ADULT = 30;

/** The practice's own pain limits in place of the school's. */
export function PainLimits() {
  const reference = useReference();
  const schools = useAppSelector((state) => state.session.me?.practice.schools) ?? {};
  const { data } = useFiguresQuery();
  const [save, { isLoading, error, isSuccess }] = useSetPainLimitsMutation();
  const school = painLimits(reference, { schools, overrides: { painLimits: null } }, ADULT);
  const inForce = data?.painLimits ?? school;
  const [fine, setFine] = useState<number | null>(null);
  const [stop, setStop] = useState<number | null>(null);
  if (!data) return null;
  const wanted = { fine: fine ?? inForce.fine, stop: stop ?? inForce.stop };
  const put = (painLimitsInput: typeof wanted | null) =>
    save({ painLimits: painLimitsInput, version: data.version })
      .unwrap()
      .then(
        () => {
          setFine(null);
          setStop(null);
        },
        () => undefined,
      );
  return (
    <section className={`card ${classes.card}`} aria-labelledby="pain-title">
      <Title order={2} size={20} id="pain-title">
        Pain limits
      </Title>
      <Text size="sm" c="var(--muted)" mb="xs">
        School “{schoolOption(reference, schools, 'pain-limit')}”: fine up to {school.fine}, stop above{' '}
        {school.stop}. Growing athletes (under 18) never have more than 0 and 3. Printed and spoken limits
        follow.
      </Text>
      <Group align="flex-end" gap="xs">
        <UnitInput
          label="Fine up to"
          unit="/10"
          w={120}
          min={0}
          max={10}
          value={wanted.fine}
          onChange={setFine}
        />
        <UnitInput
          label="Stop above"
          unit="/10"
          w={120}
          min={0}
          max={10}
          value={wanted.stop}
          onChange={setStop}
        />
        <Button loading={isLoading} onClick={() => void put(wanted)}>
          Save pain limits
        </Button>
        {data.painLimits ? (
          <Button variant="light" onClick={() => void put(null)}>
            Use the school’s
          </Button>
        ) : null}
      </Group>
      {error ? (
        <Alert color="copper" role="alert" mt={6} p={8}>
          {errorText(error)}
        </Alert>
      ) : null}
      <Text size="sm" role="status" mt={6}>
        {isSuccess ? 'Saved. ' : ''}
        {data.painLimits ? 'The practice’s own limits hold.' : 'The school’s limits hold.'}
      </Text>
    </section>
  );
}
