import { Button, Group, Text, TextInput, Title } from '@mantine/core';
import { MOST_PAIN, painLimits, schoolOption } from '@yonder/core/findings';
import { useState } from 'react';
import { Locked } from '../../app/Allowed.tsx';
import { Refusal } from '../../components/Refusal.tsx';
import { useReference } from '../../app/reference.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';
import { chosenOptions, useMethodsQuery } from '../methods/methodEndpoints.ts';
import { useFiguresQuery, useSetPainLimitsMutation } from './figureEndpoints.ts';
import classes from './Figures.module.css';

const ADULT = 30;

/** The practice's own pain limits in place of the school's. */
export function PainLimits() {
  const reference = useReference();
  const { data: methods } = useMethodsQuery(null);
  const schools = chosenOptions(methods?.practice ?? []);
  const { data } = useFiguresQuery();
  const [save, { isLoading, error, isSuccess }] = useSetPainLimitsMutation();
  const school = painLimits(reference, { schools, painLimits: null }, ADULT);
  const inForce = data?.painLimits ?? school;
  // Undefined is untouched, null is emptied while typing.
  const [fine, setFine] = useState<number | null | undefined>();
  const [stop, setStop] = useState<number | null | undefined>();
  const [why, setWhy] = useState('');
  if (!data) return null;
  const wanted = {
    fine: fine === undefined ? inForce.fine : fine,
    stop: stop === undefined ? inForce.stop : stop,
  };
  const faultOf = (of: 'fine' | 'stop') => {
    const value = wanted[of];
    return value !== null && value >= 0 && value <= MOST_PAIN[of] ? null : `between 0 and ${MOST_PAIN[of]}`;
  };
  const sound = faultOf('fine') === null && faultOf('stop') === null;
  const put = (painLimitsInput: { fine: number; stop: number } | null) =>
    save({ painLimits: painLimitsInput, why, version: data.version })
      .unwrap()
      .then(
        () => {
          setFine(undefined);
          setStop(undefined);
          setWhy('');
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
      <Locked least="owner">
        <Group align="flex-end" gap="xs">
          <UnitInput
            label="Fine up to"
            unit="/10"
            w={120}
            min={0}
            max={MOST_PAIN.fine}
            value={wanted.fine}
            error={fine === undefined ? null : faultOf('fine')}
            onChange={setFine}
          />
          <UnitInput
            label="Stop above"
            unit="/10"
            w={120}
            min={0}
            max={MOST_PAIN.stop}
            value={wanted.stop}
            error={stop === undefined ? null : faultOf('stop')}
            onChange={setStop}
          />
          <TextInput label="Why" w={220} value={why} onChange={(e) => setWhy(e.currentTarget.value)} />
          <Button
            loading={isLoading}
            disabled={!sound || why.trim().length < 3}
            onClick={() => void put({ fine: wanted.fine ?? 0, stop: wanted.stop ?? 0 })}
          >
            Save pain limits
          </Button>
          {data.painLimits ? (
            <Button variant="light" disabled={why.trim().length < 3} onClick={() => void put(null)}>
              Use the school’s
            </Button>
          ) : null}
        </Group>
      </Locked>
      <Refusal error={error} mt={6} />
      <Text size="sm" role="status" mt={6}>
        {isSuccess ? 'Saved. ' : ''}
        {data.painLimits ? 'The practice’s own limits hold.' : 'The school’s limits hold.'}
      </Text>
    </section>
  );
}
